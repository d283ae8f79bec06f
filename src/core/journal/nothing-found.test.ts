import { describe, expect, it } from "vitest";
import { NATURAL } from "../core.fixture";
import { handoverOf } from ".";
import { Writer } from "./journal.fixture";

const lean = (status: "stored" | "history" | "current") => ({ codes: [{ code: "P0171", status }] });
const why = (job: Writer) => job.state().blocks.close.map((b) => b.reason);
const QUIET = [1, 0, -1, 0, 1];

/** A car that came in with a lean code and a rough idle, and shows nothing of either. */
function sound(change: { readonly trims?: readonly number[]; readonly complaint?: "gone" | "remains" | "none" } = {}) {
  const job = new Writer();
  job.add("opened", { number: 1 });
  job.add("vehicle", { ...NATURAL, registration: "FS 201" });
  job.add("story", { complaint: "Idles rough", symptoms: ["rough-idle"], verified: "not-tried" });
  job.add("codes", lean("stored"));
  job.trims(change.trims ?? QUIET);
  job.smoke({}, 4.5);
  job.smoke({ entry: "dipstick" }, 4.5);
  job.add("check", { check: "look", record: { items: [{ id: "pcv-hose", state: "fine" }] } });
  job.add("codes-cleared", {});
  job.add("drive", { minutes: 25, legs: ["city", "highway"] } as never);
  job.add("codes", { codes: [] });
  if (change.complaint !== "none")
    job.add("complaint-tried", { how: "Idled for ten minutes", result: change.complaint ?? "gone" });
  return job;
}

describe("a car with nothing wrong with it", () => {
  it("is handed back as that, once the complaint was tried, the codes stayed away and the checks leave little else", () => {
    const job = sound();
    expect(job.state().suspects[0]?.cause.trait).toBe("healthy");
    expect(why(job)).toEqual([]);
    expect(handoverOf(job.state()).proved).toMatch(/^Nothing found:/);
    expect(job.state().nextStation).toMatchObject({ station: "handover" });
  });

  it("is not, where the complaint was not tried or remains", () => {
    expect(why(sound({ complaint: "none" })).join()).toMatch(/nothing is repaired yet|Try the complaint/);
    expect(why(sound({ complaint: "remains" })).join()).toMatch(/nothing is repaired yet|complaint remains/);
  });

  it("is not by a word alone: a reading that shows a fault, or none at all, leaves it open", () => {
    expect(why(sound({ trims: [22, 14, 8, 3, 1] })).join()).toMatch(/nothing is repaired yet/);
    const untested = new Writer();
    untested.add("opened", { number: 1 });
    untested.add("vehicle", { ...NATURAL, registration: "FS 201" });
    untested.add("story", { complaint: "Idles rough", symptoms: ["rough-idle"], verified: "not-tried" });
    untested.add("complaint-tried", { how: "Idled", result: "gone" });
    expect(why(untested).join()).toMatch(/nothing is repaired yet/);
  });

  it("is not by taps alone: every suspect said to be tried by hand, and nothing measured", () => {
    const job = new Writer();
    job.add("opened", { number: 1 });
    job.add("vehicle", { ...NATURAL, registration: "FS 201" });
    job.add("story", { complaint: "Idles rough", symptoms: ["rough-idle"], verified: "not-tried" });
    for (const { cause } of job.state().suspects)
      if (cause.trait !== "healthy") job.add("tried", { cause: cause.id, name: cause.name });
    job.add("complaint-tried", { how: "Idled", result: "gone" });
    expect(job.state().nothingFound).toBeGreaterThan(0.9);
    expect(why(job)).toEqual([expect.stringMatching(/nothing is measured yet/)]);
  });

  it("is not while a code was not driven away", () => {
    const job = sound();
    job.add("codes", lean("current"));
    expect(why(job).join()).toMatch(/P0171/);
  });

  it("is not with something found and not dealt with, nor after it came back", () => {
    const found = sound();
    found.add("finding", { joint: "pcv-hose", what: "split", confirmed: true, evidence: [], confirmedBy: "seen" });
    expect(why(found).join()).toMatch(/Repair what was found/);
    const back = sound();
    back.add("outcome", { result: "came-back" } as never);
    expect(why(back).join()).toMatch(/came back|nothing is repaired yet/);
  });
});

describe("a suspect that was tried by hand and is not it", () => {
  it("falls, and is no longer what to go straight to; taken out again it is as before", () => {
    const job = new Writer();
    job.add("opened", { number: 1 });
    job.add("vehicle", NATURAL);
    job.add("story", { complaint: "Idles rough", symptoms: ["rough-idle"], verified: "not-tried" });
    job.trims([22, 14, 8, 3, 1]);
    const before = job.state().suspects;
    const { cause } = before.find((s) => s.cause.trait === "branch-leak") as (typeof before)[number];
    const odds = () => job.state().suspects.find((s) => s.cause.id === cause.id)?.odds ?? 0;
    const was = odds();
    const id = job.add("tried", { cause: cause.id, name: cause.name });
    expect(odds()).toBeLessThan(was / 5);
    expect(job.state().byHand?.suspect.cause.id).not.toBe(cause.id);
    // Another cause at the same joint is another.
    const twin = job.state().suspects.find((s) => s.cause.joint === cause.joint && s.cause.id !== cause.id);
    const twinBefore = before.find((s) => s.cause.id === twin?.cause.id);
    if (twin && twinBefore) expect(twin.odds).toBeGreaterThanOrEqual(twinBefore.odds);
    job.add("retract", { reason: "was another one" }, { corrects: id });
    expect(odds()).toBeCloseTo(was, 9);
  });
});
