import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Entry, JournalEntry } from "./envelope";
import {
  asRecorded,
  type DeviceJournal,
  deviceJournal,
  type Held,
  heldOf,
  lostBy,
  received,
  type ServerAnswer,
  seenThrough,
  withOutbox,
} from "./sync";

const AT = "2026-03-02T08:00:00.000Z";
const entryOf = (id: string, device: string, deviceSeq: number, seenSeq: number): Entry => ({
  id,
  jobId: "job",
  kind: "note",
  v: 1,
  at: AT,
  by: "Wren Alder",
  device,
  deviceSeq,
  seenSeq,
  body: { text: id },
});
const recordedOf = (seq: number): JournalEntry => ({ ...entryOf(`e${seq}`, "tablet", seq, seq - 1), seq, recordedAt: AT });

describe("what a device has seen", () => {
  it("reaches only as far as answers join on to what was complete", () => {
    const start = deviceJournal([recordedOf(1), recordedOf(2)]);
    expect(seenThrough(start)).toBe(2);
    // An answer to a question that asked from further on leaves a hole: kept, not claimed.
    const holed = received(start, { after: 4, through: 5, entries: [recordedOf(5)] });
    expect(holed.recorded.map((e) => e.seq)).toEqual([1, 2, 5]);
    expect(seenThrough(holed)).toBe(2);
    const whole = received(holed, { after: 2, through: 5, entries: [recordedOf(3), recordedOf(4), recordedOf(5)] });
    expect(whole.recorded.map((e) => e.seq)).toEqual([1, 2, 3, 4, 5]);
    expect(seenThrough(whole)).toBe(5);
  });

  it("takes gaps of an imported job as they are: complete is what the server says is complete", () => {
    const journal = received(deviceJournal([recordedOf(1)]), { after: 1, through: 9, entries: [recordedOf(9)] });
    expect(seenThrough(journal)).toBe(9);
  });

  it("stays the same object for an answer that brings nothing", () => {
    const journal = deviceJournal([recordedOf(1)]);
    expect(received(journal, { after: 1, through: 1, entries: [] })).toBe(journal);
    expect(received(journal, { after: 0, through: 1, entries: [recordedOf(1)] })).toBe(journal);
  });

  it("gives back what this device made and the server has lost, as it was made, and nothing else", () => {
    const of = (seq: number, device: string): JournalEntry => ({ ...recordedOf(seq), device });
    const marked: JournalEntry = { ...of(3, "phone"), role: "lead", history: "made too late", imported: { by: "x", at: AT } };
    const journal = deviceJournal([of(1, "phone"), of(2, "tablet"), marked, of(4, "tablet")]);
    const answer: ServerAnswer = { after: 0, through: 2, entries: [of(1, "phone"), of(2, "tablet")], instead: true };
    expect(lostBy(journal, answer, "phone")).toEqual([{ ...entryOf("e3", "phone", 3, 2) }]);
    expect(lostBy(journal, { ...answer, instead: false }, "phone")).toEqual([]);
  });

  it("shows behind what is recorded what was not sent yet, each once", () => {
    const mine = entryOf("mine", "phone", 1, 1);
    expect(
      withOutbox(deviceJournal([recordedOf(1)]), [entryOf("e1", "tablet", 1, 0), mine], AT).map((e) => [e.id, e.seq]),
    ).toEqual([
      ["e1", 1],
      ["mine", 2],
    ]);
  });
});

/** A server that numbers what it is given, as the real one does. */
class Server {
  log: JournalEntry[] = [];
  private top = 0;
  private copy: JournalEntry[] = [];
  private clock = Date.parse(AT);
  backUp = () => {
    this.copy = [...this.log];
  };
  /** The case in which what was recorded since is lost, and its numbers are given anew. */
  restore = () => {
    this.log = [...this.copy];
    this.top = this.log.at(-1)?.seq ?? 0;
  };
  skip = (by: number) => {
    this.top += by;
  };
  answer({ behind, last }: Held): ServerAnswer {
    const there = this.log.find((e) => e.seq === behind);
    const instead = behind > 0 && (there ? asRecorded(there) : "") !== last;
    const after = instead ? 0 : behind;
    const entries = this.log.filter((e) => e.seq > after);
    return { after, through: entries.at(-1)?.seq ?? after, entries, ...(instead ? { instead } : {}) };
  }
  post(entries: readonly Entry[], held: Held): ServerAnswer {
    for (const entry of entries) {
      if (this.log.some((e) => e.id === entry.id)) continue;
      this.top++;
      // The server's own clock goes on, whatever is put back.
      this.clock += 1000;
      this.log.push({ ...entry, seq: this.top, recordedAt: new Date(this.clock).toISOString() });
    }
    const ids = new Set(entries.map((e) => e.id));
    const answer = this.answer(held);
    return { ...answer, entries: this.log.filter((e) => e.seq > answer.after || ids.has(e.id)) };
  }
}

/** An answer reaches a device: what it names is recorded, and waits no longer. */
function arrive(device: { name: string; journal: DeviceJournal; outbox: Entry[] }, answer: ServerAnswer): void {
  device.outbox.push(...lostBy(device.journal, answer, device.name));
  device.journal = received(device.journal, answer);
  const recorded = new Set(device.journal.recorded.map((e) => e.id));
  device.outbox = device.outbox.filter((e) => !recorded.has(e.id));
}

type Step = {
  readonly device: number;
  readonly what: "write" | "ask" | "flush" | "deliver" | "gap" | "back up" | "restore";
  readonly lost: boolean;
};
const step: fc.Arbitrary<Step> = fc.record({
  device: fc.nat(2),
  what: fc.constantFrom("write", "write", "ask", "flush", "deliver", "gap", "back up", "restore"),
  lost: fc.boolean(),
});

/** Put back to nothing, and an entry sent again comes to the number that it had, over another one than before. */
const SENT_AGAIN: Step[] = [
  { device: 0, what: "write", lost: false },
  { device: 2, what: "write", lost: false },
  { device: 0, what: "ask", lost: false },
  { device: 0, what: "restore", lost: false },
  { device: 0, what: "write", lost: true },
  { device: 2, what: "flush", lost: false },
  { device: 2, what: "write", lost: false },
];

describe("three devices on a bad connection, and a server that is put back to its backup", () => {
  it("end with the same journal, nothing skipped, nothing twice, nothing lost, and never claim more than they had seen", () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 60 }), (steps) => {
        const server = new Server();
        const devices = [0, 1, 2].map((i) => ({
          name: `d${i}`,
          journal: deviceJournal([]) as DeviceJournal,
          outbox: [] as Entry[],
          late: [] as ServerAnswer[],
          count: 0,
        }));
        let made = 0;
        let restored = false;
        for (const { device, what, lost } of steps) {
          const here = devices[device] as (typeof devices)[number];
          // A lost answer may still arrive, much later and out of order.
          const take = (answer: ServerAnswer) => {
            if (lost) here.late.push(answer);
            else arrive(here, answer);
          };
          if (what === "write") {
            const claim = seenThrough(here.journal);
            const have = new Set(here.journal.recorded.map((e) => e.seq));
            if (!restored) for (const e of server.log) if (e.seq <= claim) expect(have.has(e.seq)).toBe(true);
            here.count++;
            here.outbox.push(entryOf(`n${made++}`, `d${device}`, here.count, claim));
          }
          if (what === "write" || what === "flush") take(server.post(here.outbox, heldOf(here.journal)));
          if (what === "ask") take(server.answer(heldOf(here.journal)));
          if (what === "back up") server.backUp();
          if (what === "restore") {
            server.restore();
            restored = true;
            // The server was stopped for it: no answer outlives that.
            for (const one of devices) one.late = [];
          }
          if (what === "gap") server.skip(3);
          if (what === "deliver") {
            const answer = here.late.pop();
            if (answer) arrive(here, answer);
          }
        }
        for (const here of devices) arrive(here, server.answer(heldOf(here.journal)));
        for (const here of devices) arrive(here, server.post(here.outbox, heldOf(here.journal)));
        for (const here of devices) {
          arrive(here, server.answer(heldOf(here.journal)));
          expect(here.journal.recorded).toEqual(server.log);
          expect(here.outbox).toEqual([]);
        }
        expect(server.log.length).toBe(made);
        expect(new Set(server.log.map((e) => e.id)).size).toBe(made);
      }),
      { numRuns: 1000, examples: [[SENT_AGAIN]] },
    );
  });
});
