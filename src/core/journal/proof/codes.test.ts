import { describe, expect, it } from "vitest";
import { codeText } from "../../faults";
import type { Bodies, CodeRead } from "../entries";
import { found, GOOD, proved, repairBody, trimSurvey, type Writer } from "../journal.fixture";

const says = (job: Writer) =>
  job
    .state()
    .blocks.close.map((b) => b.reason)
    .join("\n");

/** A survey of points at these speeds and manifold pressures, all in band. */
const surveyAt = (...points: readonly (readonly [rpm: number, map: number, maf: number])[]) => ({
  check: "trims" as const,
  record: {
    ...trimSurvey([0]),
    points: points.map(([rpm, map, maf]) => ({
      rpm,
      maf: { value: maf, unit: "g/s" as const },
      map: { value: map, unit: "kPa" as const, kind: "absolute" as const },
      banks: [{ short: 0.5, long: 0.4 }],
    })),
  },
});

/** A job whose code keeps a freeze frame, repaired and proved as far as `proof` goes. */
function framed(code: Partial<CodeRead>, proof: (job: Writer) => void, drive: Partial<Bodies["drive"]> = {}): string {
  const { job, finding } = found();
  const read = job.entries.find((e) => e.kind === "codes") as { body: Bodies["codes"] };
  read.body = { codes: [{ code: "P0171", status: "current", ...code }] };
  job.add("repair", repairBody(finding));
  job.trims(GOOD);
  job.smoke();
  proof(job);
  job.add("codes-cleared", {});
  job.add("complaint-tried", { how: "Ten minutes of idle", result: "gone" });
  job.add("drive", { minutes: 25, ...drive });
  job.add("codes", { codes: [] });
  return says(job);
}
const nothing = () => {};

describe("a mixture code's freeze frame", () => {
  it("asks for its own operating point again, and for no other", () => {
    const frame = { rpm: 3100, load: 45 };
    expect(framed({ frame }, nothing)).toMatch(/2725 .* 3475 rpm/);
    expect(framed({ frame }, (job) => job.add("check", surveyAt([3100, 45, 20])))).toBe("");
    expect(framed({ frame }, (job) => job.add("check", surveyAt([3100, 95, 45])))).toMatch(/P0171/);
    expect(framed({ frame }, (job) => job.add("check", surveyAt([2600, 45, 17])))).toMatch(/P0171/);
    expect(framed({ frame: { rpm: 760, load: 33 } }, nothing)).toBe("");
  });
  it("is read from what was typed as well", () => {
    expect(framed({ freezeFrame: "3100 rpm, 88 °C, load 45 %" }, nothing)).toMatch(/P0171/);
    expect(framed({ freezeFrame: "3100/min, 45 % load" }, nothing)).toMatch(/P0171/);
    expect(framed({ freezeFrame: "720 rpm, 92 °C, load 30 %" }, nothing)).toBe("");
    expect(framed({ freezeFrame: "idling at the light" }, nothing)).toBe("");
  });
  it("counts for its own code alone", () => {
    expect(framed({ code: "P0420", frame: { rpm: 3100, load: 45 } }, nothing)).toBe("");
  });
  it("taken cold asks for a start from cold, which no warm engine shows", () => {
    const frame = { rpm: 1200, load: 40, coolant: { value: 14, unit: "°C" as const } };
    expect(framed({ frame }, nothing)).toMatch(/cold/);
    expect(framed({ frame }, nothing, { coldStart: true })).toBe("");
  });
  it("is answered by the car's own monitor on any road, within its limits", () => {
    const withMonitor = (monitor: Partial<Bodies["monitor"]>, minutes = 12) => {
      const { job, finding } = found();
      Object.assign(job.entries.find((e) => e.kind === "codes") as object, {
        body: { codes: [{ code: "P0171", status: "current", frame: { rpm: 3100, load: 45 } }] },
      });
      job.add("repair", repairBody(finding));
      job.trims(GOOD);
      job.smoke();
      job.add("codes-cleared", {});
      job.add("complaint-tried", { how: "Ten minutes of idle", result: "gone" });
      job.add("drive", { minutes });
      const values = [{ name: "Long-term trim, bank 1", value: 3, max: 20 }];
      job.add("monitor", { of: "mixture", result: "passed", readBy: "on-board tests", values, ...monitor });
      job.add("codes", { codes: [] });
      return says(job);
    };
    expect(withMonitor({})).toBe("");
    expect(withMonitor({}, 4)).toBe("");
    expect(withMonitor({ of: "misfire" })).toMatch(/P0171/);
    expect(withMonitor({ values: [{ name: "Long-term trim, bank 1", value: 23, max: 20 }] })).toMatch(/P0171/);
    expect(withMonitor({ result: "not-complete" })).toMatch(/P0171/);
  });
});

describe("a misfire code's freeze frame", () => {
  const frame = { rpm: 2900, load: 78 };
  it("asks for a drive that does what it came under", () => {
    expect(framed({ code: "P0302", frame }, nothing, { load: "town" })).toMatch(/P0302/);
    expect(framed({ code: "P0302", frame }, nothing)).toMatch(/P0302/);
    expect(framed({ code: "P0302", frame }, nothing, { load: "hills" })).toBe("");
    expect(framed({ code: "P0302", frame: { rpm: 740, load: 25 } }, nothing, { load: "town" })).toBe("");
    expect(framed({ code: "P0302", frame: { ...frame, coolant: { value: 9, unit: "°C" } } }, nothing, { load: "hills" })).toMatch(
      /cold/,
    );
  });
});

describe("a code that is there after the repair", () => {
  it("is back where it was there before, and new where it was not", () => {
    const { job } = proved();
    job.add("codes", { codes: [{ code: "P0171", status: "pending" }] });
    expect(says(job)).toMatch(/Find what is left: P0171 is back, pending, after it was cleared/);
    const { job: other } = proved();
    other.add("codes", { codes: [{ code: "P0113", status: "current" }] });
    expect(says(other)).toMatch(/P0113/);
    expect(says(other)).not.toMatch(/came again|is back/);
    expect(says(other)).toMatch(/and was not before/);
  });
  it("is no new one where it was read once before the clearing", () => {
    const { job, finding } = found();
    job.add("codes", {
      codes: [
        { code: "P0171", status: "current" },
        { code: "P0113", status: "history" },
      ],
    });
    job.add("repair", repairBody(finding));
    job.add("codes-cleared", {});
    job.add("drive", { minutes: 20 });
    job.add("codes", { codes: [{ code: "P0113", status: "current" }] });
    expect(says(job)).toMatch(/P0113 is back/);
  });
});

describe("all that a code still needs", () => {
  it("is said at once: clearing, drive and reading", () => {
    const { job, finding } = found();
    job.add("repair", repairBody(finding));
    expect(says(job)).toMatch(/clear/i);
    expect(says(job)).toMatch(/drive/i);
    expect(says(job)).toMatch(/read/i);
  });
});

describe("codes are known by what they mean", () => {
  it.each(["P0069", "P0087", "P0128", "P0236", "P0300", "P0301", "P0304"])("%s", (code) => {
    expect(codeText(code)?.text).toMatch(/\w+ \w+/);
  });
});
