import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { isAsSigned, signed } from "../people";
import type { Entry, JournalEntry } from "./envelope";
import {
  afterNo,
  again,
  heldUp,
  type Kept,
  keptOf,
  leased,
  nextBatch,
  nextTry,
  openedEntry,
  openingOf,
  shown,
  toBeSigned,
} from "./outbox";

const entryOf = (deviceSeq: number, more: Partial<Entry> = {}): Entry => ({
  id: `e${deviceSeq}`,
  jobId: "job",
  kind: "note",
  v: 1,
  at: "2026-03-02T08:00:00.000Z",
  by: "Wren Alder",
  device: "tablet",
  deviceSeq,
  seenSeq: 0,
  body: { text: "x" },
  ...more,
});
const idsOf = (list: readonly { readonly id: string }[]) => list.map((k) => k.id);

describe("the outbox of a device", () => {
  it("sends the oldest of each job first, and a batch as one", () => {
    const kept = [...keptOf([entryOf(2), entryOf(3)]), ...keptOf([entryOf(1, { jobId: "other" })]), ...keptOf([entryOf(4)])];
    expect(idsOf(nextBatch(kept, "tab", 0))).toEqual(["e1"]);
    expect(idsOf(nextBatch(kept.filter((k) => k.id !== "e1").toReversed(), "tab", 0))).toEqual(["e2", "e3"]);
  });

  it("leaves what another tab is sending to it, until its time is over", () => {
    const [mine] = keptOf([entryOf(1)]) as [Kept];
    const taken = [leased(mine, "first", 1000), ...keptOf([entryOf(2)])];
    expect(nextBatch(taken, "second", 2000)).toEqual([]);
    expect(idsOf(nextBatch(taken, "first", 2000))).toEqual(["e1"]);
    expect(idsOf(nextBatch(taken, "second", 31_001))).toEqual(["e1"]);
  });

  it.each([400, 404, 409, 413])("sets aside what is refused with %i, with its reason", (status) => {
    const [kept] = keptOf([entryOf(1)]) as [Kept];
    expect(afterNo(kept, status, "It is wrong", 5).refused).toEqual({ message: "It is wrong", at: 5 });
  });

  it.each([401, 403, 408, 429, 500, 502, 503, 507, undefined])("keeps what came to %s, and waits longer each time", (status) => {
    let [kept] = keptOf([entryOf(1)]) as [Kept];
    const pauses: number[] = [];
    for (let i = 0; i < 9; i++) {
      kept = afterNo(leased(kept, "tab", 0), status, "", 0);
      expect(kept.refused).toBeUndefined();
      expect(kept.lease).toBeUndefined();
      pauses.push(kept.notBefore);
    }
    expect(pauses).toEqual(pauses.toSorted((a, b) => a - b));
    expect(pauses[1]).toBeGreaterThan(pauses[0] as number);
    expect(pauses.at(-1)).toBeLessThanOrEqual(120_000);
    expect(nextBatch([kept], "tab", 0)).toEqual([]);
    expect(nextTry([kept])).toBe(kept.notBefore);
    expect(idsOf(nextBatch([kept], "tab", 0, true))).toEqual(["e1"]);
  });

  it("keeps back what names a refused entry in whatever field, and what names that; nothing else", () => {
    const refused = afterNo(keptOf([entryOf(1)])[0] as Kept, 409, "It changed", 0);
    const kept = [
      refused,
      ...keptOf([entryOf(2, { corrects: "e1" })]),
      ...keptOf([entryOf(3, { body: { findings: ["e9", { id: "e2" }] } }), entryOf(4)]),
      ...keptOf([entryOf(5, { body: { text: "e1 was wrong" } })]),
    ];
    expect([...heldUp(kept)]).toEqual(["e2", "e3", "e4"]);
    expect(idsOf(nextBatch(kept, "tab", 0))).toEqual(["e5"]);
    expect(shown(kept).map((e) => e.id)).toEqual(["e5"]);
    const asked = kept.map((k) => (k.id === "e1" ? again(k) : k));
    expect(idsOf(nextBatch(asked, "tab", 0))).toEqual(["e1"]);
    expect(heldUp(asked).size).toBe(0);
  });

  it("is due for every tab when it says so, and not before (property)", () => {
    const kept = fc.record({
      deviceSeq: fc.integer({ min: 1, max: 50 }),
      job: fc.nat(2),
      notBefore: fc.nat(100),
      lease: fc.option(fc.record({ tab: fc.constantFrom("first", "second"), until: fc.nat(100) })),
      refused: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.uniqueArray(kept, { maxLength: 8, selector: (k) => k.deviceSeq }), (made) => {
        const all = made.map(({ deviceSeq, job, notBefore, lease, refused }): Kept => {
          const [one] = keptOf([entryOf(deviceSeq, { jobId: `job${job}` })]) as [Kept];
          return { ...one, notBefore, ...(lease ? { lease } : {}), ...(refused ? { refused: { message: "", at: 0 } } : {}) };
        });
        const due = nextTry(all);
        if (due === undefined) expect(nextBatch(all, "third", 1000)).toEqual([]);
        else {
          expect(nextBatch(all, "third", due)).not.toEqual([]);
          if (due > 0) expect(nextBatch(all, "third", due - 1)).toEqual([]);
        }
      }),
    );
  });

  it("has nothing due where all was refused", () => {
    expect(nextTry([afterNo(keptOf([entryOf(1)])[0] as Kept, 400, "", 0)])).toBeUndefined();
  });
});

/** Numbers what it is given, an id once, a batch all or none; refuses what it was told to. */
class Server {
  readonly log: JournalEntry[] = [];
  readonly refuses = new Set<string>();
  down: number | undefined;
  post(entries: readonly Entry[]): number {
    if (this.down !== undefined) return this.down;
    if (entries.some((e) => this.refuses.has(e.id))) return 409;
    for (const entry of entries) {
      if (this.log.some((e) => e.id === entry.id)) continue;
      this.log.push({ ...entry, seq: this.log.length + 1, recordedAt: "" });
    }
    return 200;
  }
}

const step = fc.record({
  what: fc.constantFrom("make", "make", "make", "send", "send", "send", "wait", "down", "up", "again"),
  tab: fc.nat(2),
  job: fc.nat(1),
  /** A failure that goes wrong in the middle */
  fate: fc.constantFrom("well", "well", "well", "crash before", "crash after", "answer lost", "late"),
  refused: fc.boolean(),
  names: fc.option(fc.nat(30)),
  together: fc.integer({ min: 1, max: 3 }),
  status: fc.constantFrom(401, 403, 429, 500, 503, 507),
});

describe("tabs of one device that crash, lose answers and are refused", () => {
  it("lose no entry: each is recorded exactly once, or still kept and shown with its reason", () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 60 }), (steps) => {
        const server = new Server();
        /** The store that all tabs share: each change of it is one transaction. */
        let store = new Map<string, Kept>();
        const list = () => [...store.values()];
        const put = (kept: readonly Kept[]) => {
          store = new Map([...store, ...kept.map((k) => [k.id, k] as const)]);
        };
        const drop = (kept: readonly Kept[]) => {
          store = new Map([...store].filter(([id]) => !kept.some((k) => k.id === id)));
        };
        const late: (() => void)[] = [];
        const made: Entry[] = [];
        let now = 0;
        const send = (tab: string, fate: string) => {
          const batch = nextBatch(list(), tab, now).map((k) => leased(k, tab, now));
          if (batch.length === 0) return;
          put(batch);
          if (fate === "crash before") return;
          const entries = batch.map((k) => k.entry);
          const settle = (status: number | undefined) => {
            // By now the entry may be gone, or asked for again by another tab.
            const here = batch.filter((k) => store.has(k.id));
            if (status === 200) drop(here);
            else put(here.map((k) => afterNo(store.get(k.id) as Kept, status, "The server's reason", now)));
          };
          if (fate === "late") {
            late.push(() => settle(server.post(entries)));
            return;
          }
          const status = server.post(entries);
          if (fate === "crash after") return;
          settle(fate === "answer lost" ? undefined : status);
        };
        for (const { what, tab, job, fate, refused, names, together, status } of steps) {
          now += 1000;
          if (what === "make") {
            const named = names === null ? undefined : made[names];
            const entries = Array.from({ length: together }, (_, i) =>
              entryOf(made.length + i, { jobId: `job${job}`, ...(named && i === 0 ? { corrects: named.id } : {}) }),
            );
            made.push(...entries);
            if (refused && together === 1) server.refuses.add((entries[0] as Entry).id);
            put(keptOf(entries));
          }
          if (what === "send") send(`tab${tab}`, fate);
          if (what === "wait") {
            now += 40_000;
            late.shift()?.();
          }
          if (what === "down") server.down = status;
          if (what === "up") server.down = undefined;
          if (what === "again") for (const k of list()) if (k.refused) put([again(k)]);
          // Whatever happens: each entry is on the server or in the store, and what is in the store is shown somewhere.
          const held = heldUp(list());
          const visible = new Set(shown(list()).map((e) => e.id));
          for (const { id } of made) {
            const kept = store.get(id);
            expect(kept !== undefined || server.log.some((e) => e.id === id)).toBe(true);
            if (kept) expect(visible.has(id) || held.has(id) || kept.refused !== undefined).toBe(true);
          }
        }
        for (const settle of late) settle();
        server.down = undefined;
        for (let i = 0; i < 3 * made.length + 3; i++) {
          now += 200_000;
          send("tab0", "well");
        }
        expect(new Set(server.log.map((e) => e.id)).size).toBe(server.log.length);
        const held = heldUp(list());
        for (const { id } of made) {
          const times = server.log.filter((e) => e.id === id).length;
          const kept = store.get(id);
          if (kept) {
            // Kept to the end only with a reason; a refused one was never recorded.
            expect(kept.refused?.message ?? (held.has(id) ? "held" : undefined)).toBeDefined();
            if (kept.refused) expect([...server.refuses].some((r) => store.get(r)?.batch === kept.batch)).toBe(true);
          } else expect(times).toBe(1);
        }
      }),
      { numRuns: 2000 },
    );
  });
});

describe("a job that is opened on a device", () => {
  const KEY = "0f".repeat(32);
  const opening = { id: "a", jobId: "b", at: "2026-03-02T08:00:00Z", by: "Wren Alder", device: "tablet", deviceSeq: 7 };

  it("waits as the first line of its journal, without a number, and is sent as it was signed", () => {
    for (const asked of [opening, { ...opening, practice: "3008-BFY0-0000-006" }]) {
      const made = signed(asked, "3b241101-e2bb-4255-8caf-4136c566a962", KEY);
      const entry = openedEntry(made);
      expect(entry).toMatchObject({ kind: "opened", seenSeq: 0, body: { number: 0 } });
      const sent = openingOf(JSON.parse(JSON.stringify(entry)));
      expect(sent).toEqual(made);
      expect(isAsSigned(sent as typeof made, KEY)).toBe(true);
    }
  });

  it("goes up before anything else of it, in a batch of its own", () => {
    const kept = [...keptOf([openedEntry(opening)]), ...keptOf([entryOf(8, { jobId: "b" }), entryOf(9, { jobId: "b" })])];
    expect(idsOf(nextBatch(kept, "tab", 0))).toEqual(["a"]);
    expect(idsOf(nextBatch(kept.slice(1), "tab", 0))).toEqual(["e8", "e9"]);
  });

  it("waits for a signature where its author has to sign in, and only for theirs", () => {
    const [kept] = keptOf([openedEntry(opening)]) as [Kept];
    expect(toBeSigned(kept, "Wren Alder")).toBe(true);
    expect(toBeSigned(kept, "Maren Oake")).toBe(false);
    const [mine] = keptOf([openedEntry(signed(opening, "x", KEY))]) as [Kept];
    expect(toBeSigned(mine, "Wren Alder")).toBe(false);
    const asked = afterNo(mine, 401, "Sign in anew", 0);
    expect(asked).toMatchObject({ asks: "Sign in anew", tries: 1 });
    expect(toBeSigned(asked, "Wren Alder")).toBe(true);
    expect(afterNo(asked, 503, "", 0)).not.toHaveProperty("asks");
  });
});
