import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { canonicalJson } from "../canonical";
import { NATURAL, smokeRun } from "../core.fixture";
import { BadInput, validate } from "../input";
import { type Bodies, type EntryKind, validateBody } from "./entries";
import { entrySchema } from "./envelope";
import { foldJob } from "./fold";
import { parseJobFile, toJobFile } from "./job-file";
import { found, JOB, NOW, proved, repairBody, SHOP } from "./journal.fixture";
import { readingsCsv } from "./readings-csv";

const says = (work: () => unknown): string => {
  try {
    work();
    return "taken";
  } catch (error) {
    if (!(error instanceof BadInput)) throw error;
    return `${error.path}: ${error.message}`;
  }
};

describe("bodies at the door", () => {
  const uuid = "6ba7b811-9dad-11d1-80b4-00c04fd430c8";
  it.each<[EntryKind | string, unknown, RegExp]>([
    ["vehicle", NATURAL, /^taken$/],
    ["vehicle", { ...NATURAL, displacement: undefined }, /body.displacement: Type the engine displacement/],
    ["vehicle", { ...NATURAL, registration: "X".repeat(21) }, /under 20 characters/],
    ["story", { complaint: "", symptoms: [], verified: "seen" }, /Write down what the customer complains of/],
    ["story", { complaint: "Hiss", symptoms: ["singing"], verified: "seen" }, /symptoms/],
    ["codes", { codes: [{ code: "P0171!", status: "current" }] }, /A code is 2 to 12 letters and digits/],
    ["codes", { codes: [{ code: "P0171", status: "asleep" }] }, /status/],
    [
      "conditions",
      { ambient: { value: -3, unit: "kPa", kind: "absolute" }, bayTemperature: { value: 17, unit: "°C" } },
      /cannot be negative/,
    ],
    [
      "conditions",
      { ambient: { value: 1006, unit: "hPa", kind: "gauge" }, bayTemperature: { value: 17, unit: "°C" } },
      /absolute, not gauge/,
    ],
    [
      "conditions",
      { ambient: { value: 1006, unit: "hPa" }, bayTemperature: { value: 17, unit: "furlong" } },
      /unit "furlong" is not known/,
    ],
    ["bay", { act: "light", light: { lamp: "torch", door: "shut" } }, /lamp is one of none, lamp, blue, laser/],
    ["bay", { act: "light", light: { lamp: "lamp", door: "ajar" } }, /door is one of shut, open/],
    ["bay", { act: "light" }, /what smoke is looked for with/],
    ["bay", { act: "look-over", instrument: "toString" }, /instrument is one of smoke-machine, gauge, meter/],
    ["bay", { act: "look-over" }, /what was looked over/],
    ["conditions", { ambient: { value: 990, unit: "kPa" }, bayTemperature: { value: 17, unit: "°C" } }, /Did you mean .*990 hPa/],
    ["codes", { codes: [{ code: "P0442", status: "stored", criteria: { leak: { value: 0.02, unit: "in" } } }] }, /^taken$/],
    [
      "codes",
      { codes: [{ code: "P0442", status: "stored", criteria: { leak: { value: 20, unit: "in" } } }] },
      /out of range for hole/,
    ],
    ["readiness", { fuelLevel: 45, outside: { value: 9, unit: "°C" }, parkedAt: "2026-03-02T18:00:00Z" }, /^taken$/],
    ["readiness", { fuelLevel: 145, outside: { value: 9, unit: "°C" }, parkedAt: "2026-03-02T18:00:00Z" }, /cannot be above 100/],
    [
      "readiness",
      { fuelLevel: 45, outside: { value: 9, unit: "°C" }, parkedAt: "last night" },
      /when the engine was switched off/,
    ],
    ["monitor", { result: "passed", readBy: "readiness bit" }, /^taken$/],
    ["monitor", { result: "maybe", readBy: "readiness bit" }, /Say what the monitor did/],
    ["monitor", { result: "passed", readBy: "  " }, /Say how the monitor was read/],
    ["check", { check: "smoke", record: smokeRun() }, /^taken$/],
    ["check", { check: "smoke", record: { entry: "x" } }, /^body\.record/],
    ["check", { check: "divination", record: {} }, /body.check/],
    ["finding", { joint: "pcv-hose", what: " ", evidence: [], confirmed: true }, /Say what was found/],
    ["repair", repairBody(uuid, { permanence: "temporary" }), /temporary repair needs a re-check date/],
    ["repair", repairBody(uuid, { recheck: "next week" }), /looks like 2026-01-31/],
    ["repair", repairBody(uuid, { labourMinutes: -5 }), /cannot be negative/],
    ["repair", repairBody(uuid, { labourMinutes: Number.NaN }), /labourMinutes/],
    ["restored", { item: "that plug" }, /named by its id/],
    ["note", { text: "x".repeat(4001) }, /under 4000 characters/],
    ["close", { decidedOn: 3, force: true }, /unknown key: force/],
    ["hologram", {}, /kind: Entries of kind "hologram" are not known here/],
  ])("%s %#", (kind, body, message) => {
    expect(says(() => validateBody(kind, body))).toMatch(message);
  });
});

it("refuses a body of a version it does not know", () => {
  expect(says(() => validateBody("note", { text: "x" }, 2))).toMatch(/v: .*up to version 1 here: update the app/);
});

describe("the envelope", () => {
  const entry = {
    id: "0f0e3b8a-5b1f-4c3e-9d55-0a4b7e6f9a11",
    jobId: JOB,
    kind: "note",
    v: 1,
    at: "2026-03-02T08:00:00Z",
    by: "Maren Oake",
    device: "tablet",
    deviceSeq: 1,
    seenSeq: 0,
    body: { text: "hello" },
  };
  it.each([
    [{}, /^taken$/],
    [{ at: { from: "2026-03-02T08:00:00Z", to: "2026-03-02T09:00:00.5Z" } }, /^taken$/],
    [{ at: { from: "2026-03-02T09:00:00Z", to: "2026-03-02T08:00:00Z" } }, /cannot end before it began/],
    [{ at: "2026-03-02 08:00" }, /ISO time in UTC/],
    [{ at: "2026-02-31T25:00:00Z" }, /ISO time in UTC|no date/],
    [{ id: "7" }, /UUID/],
    [{ by: " " }, /Say who you are first/],
    [{ seenSeq: -1 }, /seenSeq/],
    [{ v: 0 }, /v must be/],
    [{ extra: 1 }, /unknown key: extra/],
    [{ body: null }, /body/],
  ])("%j", (change, message) => {
    expect(says(() => validate(entrySchema, { ...entry, ...change }))).toMatch(message);
  });

  it("never throws anything but BadInput, whatever comes in (property)", () => {
    fc.assert(fc.property(fc.anything(), (value) => void says(() => validate(entrySchema, value))));
  });
});

describe("job file", () => {
  const { job } = proved();
  const file = toJobFile(JOB, SHOP, job.entries, new Date(NOW).toISOString());
  const text = JSON.stringify(file);
  const changed = (change: (copy: typeof file) => unknown) => {
    const copy = JSON.parse(text);
    return JSON.stringify(change(copy) ?? copy);
  };

  it("comes back with the same folded state", () => {
    const back = parseJobFile(text);
    const folded = foldJob(back.entries, back.shop, Date.parse(back.exportedAt));
    expect(canonicalJson(folded)).toBe(canonicalJson(job.state()));
    expect(canonicalJson(back)).toBe(canonicalJson(file));
  });

  it("keeps an entry of an unknown kind through the round trip", () => {
    const withStrange = changed((f) => ({
      ...f,
      entries: [...f.entries, { ...f.entries[0], id: "0f0e3b8a-5b1f-4c3e-9d55-0a4b7e6f9a11", seq: 99, kind: "hologram" }],
    }));
    expect(parseJobFile(withStrange).entries.at(-1)?.kind).toBe("hologram");
  });

  it.each([
    ["truncated", text.slice(0, -40), /cut off or damaged/],
    ["empty", "", /cut off or damaged/],
    ["another format", '{"format":"recipe"}', /not a Pelota job file/],
    ["a number", "7", /not a Pelota job file/],
    ["a newer version", changed((f) => ({ ...f, version: 2 })), /version 2; this app reads up to 1. Update the app/],
    ["an unknown key", changed((f) => ({ ...f, extra: 1 })), /extra/],
    [
      "an entry twice",
      changed((f) => ({ ...f, entries: [...f.entries, f.entries[0]] })),
      /entries\[15\].id: The same entry stands twice/,
    ],
    [
      "two entries of one number",
      changed((f) => ({ ...f, entries: f.entries.map((e) => ({ ...e, seq: 1 })) })),
      /entries\[1\].seq/,
    ],
    [
      "an entry of another job",
      changed((f) => ({ ...f, jobId: "0f0e3b8a-5b1f-4c3e-9d55-0a4b7e6f9a11" })),
      /belongs to another job/,
    ],
    [
      "a bad body",
      changed((f) => ({ ...f, entries: f.entries.map((e) => (e.kind === "story" ? { ...e, body: {} } : e)) })),
      /entries\[2\].body/,
    ],
  ])("%s is refused, saying where", (_name, broken, message) => {
    expect(says(() => parseJobFile(broken))).toMatch(message);
  });
});

describe("readings as CSV", () => {
  it("holds every reading in the unit it was taken in", () => {
    const { job } = found();
    const lines = readingsCsv(job.state()).trimEnd().split("\r\n");
    expect(lines[0]).toBe("check,began,by,outcome,point,seconds,reading,value,unit,kind");
    expect(lines.filter((l) => l.startsWith("trims"))).toHaveLength(5 * 5);
    expect(lines.filter((l) => l.includes("smoke flow"))).toHaveLength(16);
    expect(lines.find((l) => l.includes("manifold pressure"))).toMatch(/,33,kPa,absolute$/);
  });

  it("disarms text that a spreadsheet would run", () => {
    const { job } = found();
    const last = job.entries.findIndex((e) => e.kind === "check");
    job.entries[last] = { ...(job.entries[last] as (typeof job.entries)[number]), by: '=HYPERLINK("x")' };
    expect(readingsCsv(job.state())).toContain(`"'=HYPERLINK(""x"")"`);
  });
});

describe("a repair of today", () => {
  const today = (change: Partial<Bodies["repair"]>) =>
    says(() =>
      validateBody("repair", repairBody("6f9619ff-8b86-4d01-b42d-00cf4fc964ff", { places: ["throttle"], ...change }), 2),
    );
  const substitute = { what: "hose by the metre", medium: "oil mist", temperature: { value: 120, unit: "°C" as const } };
  it.each([
    [{}, /^taken$/],
    [{ places: [] }, /Say where it was worked on/],
    [{ what: "Throttle body cleaned", parts: [] }, /say whether it was cleaned, corrected or renewed/],
    [{ what: "Seized flap shaft freed", parts: [] }, /say whether it was cleaned, corrected or renewed/],
    [{ what: "Purge valve washed out and blown through", parts: [] }, /say whether it was cleaned, corrected or renewed/],
    [{ what: "Intake ports decoked", parts: [] }, /say whether it was cleaned, corrected or renewed/],
    [{ what: "Throttle body cleaned", parts: [], method: "cleaned" }, /cleaned or freed, with no new part/],
    // What words suggest is asked about, and what was said is believed.
    [{ what: "Stub cleaned up, hose put back with its new clamp from the shelf", parts: [], method: "repaired" }, /^taken$/],
    [{ what: "Clamp tightened", parts: [] }, /^taken$/],
    [{ what: "Throttle body cleaned, gasket renewed" }, /^taken$/],
    [{ what: "Freewheel renewed", parts: [] }, /^taken$/],
    [{ what: "Throttle body cleaned", parts: [], permanence: "temporary", recheck: "2026-06-01", limit: "a month" }, /^taken$/],
    [{ permanence: "temporary", recheck: "2026-06-01" }, /needs a limit/],
    [{ substitute }, /not all known is a temporary repair/],
    [{ substitute: { ...substitute, suction: { value: 80, unit: "kPa", kind: "vacuum" } } }, /^taken$/],
  ] as [Partial<Bodies["repair"]>, RegExp][])("%j", (change, message) => {
    expect(today(change)).toMatch(message);
  });
});
