import { describe, expect, it } from "vitest";
import { carriedFor, keptAnew } from "./carry-over";
import type { Entry } from "./envelope";

let count = 1;
const entry = (more: Partial<Entry> = {}): Entry => ({
  id: `00000000-0000-4000-8000-${String(count).padStart(12, "0")}`,
  jobId: "11111111-1111-4111-8111-111111111111",
  kind: "note",
  v: 1,
  at: "2026-03-02T08:00:00Z",
  by: "Maren Oake",
  device: "tablet",
  deviceSeq: count++,
  seenSeq: 1,
  body: { text: "Hisses" },
  ...more,
});
const kept = (one: unknown) => ({
  id: "x",
  entry: one,
  batch: "b",
  tries: 3,
  notBefore: 9,
  asks: "sign",
  refused: { message: "No" },
});

describe("what a page of another origin offers", () => {
  it("is taken as far as whoever is in made it, in the order it was made, each by itself and untried", () => {
    const [first, second] = [entry(), entry()];
    const { mine } = carriedFor({ kept: [kept(second), kept(first)] }, "Maren Oake");
    expect(mine).toEqual([first, second]);
    expect(keptAnew(mine)).toEqual(
      [first, second].map((one) => ({ id: one.id, entry: one, batch: one.id, tries: 0, notBefore: 0 })),
    );
  });

  it("is nobody else's to bring, however it is dressed", () => {
    const forged = [entry({ by: "Maren Oake", kind: "handover", body: { decidedOn: 1, conditional: true, summary: "Go" } })];
    const { mine, others } = carriedFor({ kept: forged.map(kept) }, "Tobin Falk");
    expect(mine).toEqual([]);
    expect([...others]).toEqual([["Maren Oake", 1]]);
  });

  it("brings half-filled forms, and no setting, sign-in, role or count", () => {
    const typed = {
      "pelota.draft.x.finding": '{"what":"Half typed"}',
      "pelota.draft.broken": "{",
      "pelota.draft./../x": "1",
      "pelota.lockAfter": "1e15",
      "pelota.preferences": "{}",
      "pelota.signedIn": "{}",
      "pelota.roles": "{}",
      "pelota.device": '"tablet"',
      "pelota.deviceSeq": "9007199254740991",
      other: "1",
    };
    expect([...carriedFor({ typed }, "Maren Oake").drafts.keys()]).toEqual(["pelota.draft.x.finding"]);
  });

  it("brings what older versions left in plain storage", () => {
    const [waiting, aside] = [entry(), entry()];
    const typed = {
      "pelota.outbox.x": JSON.stringify([waiting]),
      "pelota.set-aside.x": JSON.stringify([{ entry: aside, message: "It was wrong" }]),
    };
    expect(carriedFor({ typed }, "Maren Oake").mine).toEqual([waiting, aside]);
  });

  it.each([
    ["nothing", {}],
    ["no list", { kept: "x", typed: 7 }],
    ["holes", { kept: [null, 1, [], { entry: null }, {}], typed: null }],
    [
      "no entry",
      { kept: [kept({ ...entry(), id: "../x" }), kept({ ...entry(), more: 1 }), kept({ ...entry(), deviceSeq: 2 ** 53 })] },
    ],
  ])("breaks nothing where it is %s", (_what, offer) => {
    expect(carriedFor(offer, "Maren Oake")).toMatchObject({ mine: [], others: new Map(), drafts: new Map() });
  });
});
