import { describe, expect, it } from "vitest";
import { NATURAL } from "../core.fixture";
import { SYMPTOMS } from "../faults";
import type { Form } from "../form";
import { type Draft, formStateOf, isRequired, toRecord } from "../form";
import {
  type Bodies,
  type CodeRead,
  codeReadForm,
  codesForm,
  complaintTriedForm,
  conditionsForm,
  decidedOf,
  driveForm,
  driven,
  handoverForm,
  monitorForm,
  outcomeForm,
  readinessFacts,
  readinessForm,
  setAsideFacts,
  setAsideForm,
  storyForm,
  withCode,
  workedOut,
} from ".";
import { Writer } from "./journal.fixture";

const [HISS] = (SYMPTOMS.find(([, name]) => /hiss/i.test(name)) ?? SYMPTOMS[0]) as (typeof SYMPTOMS)[number];
const NOON = "2026-03-02T12:00:00.000Z";
const errors = <K>(form: Form<object, K>, draft: Draft, known: K) =>
  Object.fromEntries((toRecord(form, draft, known).errors ?? []).map((f) => [f.field, f.message]));

describe("what is asked after a repair", () => {
  it("says at the field what is missing", () => {
    expect(Object.keys(errors(complaintTriedForm, { how: " " }, undefined))).toEqual(["how", "result"]);
    expect(Object.keys(errors(monitorForm, {}, {}))).toEqual(["result", "readBy"]);
    expect(Object.keys(errors(outcomeForm, { result: "sold" }, undefined))).toEqual(["result"]);
    expect(errors(driveForm, { minutes: "0" }, undefined)).toEqual({ minutes: "A drive lasts at least a minute" });
    expect(errors(driveForm, { minutes: "a while", distance: "18 kPa" }, undefined)).toEqual({
      minutes: expect.stringContaining("a while"),
      distance: expect.stringContaining("pressure"),
    });
  });

  it("takes a drive as it was typed, and the time it took", () => {
    const { record } = toRecord(driveForm, { minutes: "25 min", distance: "11 mi", coldStart: true }, undefined);
    expect(record).toEqual({ minutes: 25, distance: { value: 11, unit: "mi" }, coldStart: true });
    expect(driven({ minutes: 25 }, new Date(NOON))).toEqual({ from: "2026-03-02T11:35:00.000Z", to: NOON });
  });
});

describe("a car parked for its monitor", () => {
  const known = { now: () => NOON };
  it("was switched off now where nobody said when, and then where somebody did", () => {
    const read = (parkedAt: string) => toRecord(readinessForm, { fuelLevel: "45 %", outside: "12", parkedAt }, known);
    expect(read("").record).toEqual({ fuelLevel: 45, outside: { value: 12, unit: "°C" }, parkedAt: NOON });
    expect(read("2026-03-02T08:30").record?.parkedAt).toBe(new Date(2026, 2, 2, 8, 30).toISOString());
    expect(read("yesterday").errors).toMatchObject([{ field: "parkedAt", message: '"yesterday" is no date and time' }]);
    expect(errors(readinessForm, { fuelLevel: "900" }, known)).toMatchObject({
      fuelLevel: expect.stringContaining("100 %"),
      outside: expect.stringContaining("air temperature"),
    });
  });

  it("has the fuel that a check had last", () => {
    const at = "2026-03-01T10:00:00.000Z";
    const checks = [
      { record: { fuelLevel: 30 }, at },
      { record: { fuelLevel: 60 }, at },
      { record: {}, at },
    ] as never;
    const facts = (drives: readonly string[], of = checks) =>
      readinessFacts({ checks: of, drives: drives.map((at) => ({ at, minutes: 10 })) }, known.now);
    expect(toRecord(readinessForm, { outside: "12" }, facts([])).record?.fuelLevel).toBe(60);
    // A drive before it burnt nothing of it; one since did.
    expect(toRecord(readinessForm, { outside: "12" }, facts(["2026-03-01T09:00:00.000Z"])).record?.fuelLevel).toBe(60);
    expect(errors(readinessForm, { outside: "12" }, facts(["2026-03-01T11:00:00.000Z"]))).toHaveProperty("fuelLevel");
    expect(errors(readinessForm, { outside: "12" }, facts([], [] as never))).toHaveProperty("fuelLevel");
  });
});

describe("what is left as it is", () => {
  it("names a finding, a check or a code, and asks for the reason, the risk, the decision and the day", () => {
    const job = new Writer();
    job.add("opened", { number: 1 });
    job.add("vehicle", NATURAL);
    const id = job.add("finding", { joint: "oil-cap", what: "seal hard", confirmed: false, evidence: [] });
    const known = setAsideFacts(job.state(), () => "then");
    const said = { reason: "old", risk: "a hiss", decision: "later", date: "2026-05-01" };
    expect(toRecord(setAsideForm, said, known).record).toEqual({ of: "finding", id, ...said });
    expect(toRecord(setAsideForm, { ...said, id: "code P0171" }, { left: [["code P0171", "P0171"]] }).record).toMatchObject({
      of: "code",
      id: "P0171",
    });
    // Gone from the list meanwhile, it is not silently another one.
    expect(errors(setAsideForm, { ...said, id: "code P0420" }, known)).toHaveProperty("id");
    expect(Object.keys(errors(setAsideForm, { date: "soon" }, known))).toEqual(["reason", "risk", "decision", "date"]);
    // Declined beside its finding, it is that one, on the usual day until another is typed.
    const beside = { ...known, chosen: `finding ${id}`, again: "2026-06-01" };
    const { date: _, ...without } = said;
    expect(toRecord(setAsideForm, without, beside).record).toMatchObject({ of: "finding", id, date: "2026-06-01" });
    expect(toRecord(setAsideForm, said, beside).record?.date).toBe(said.date);
  });
});

describe("a handover", () => {
  it("is decided on the journal as it was read, conditional while its proof is owed", () => {
    const owed = decidedOf({ lastSeq: 12, blocks: { close: [{}] } as never });
    expect(toRecord(handoverForm, { summary: "taped" }, owed).record).toEqual({
      decidedOn: 12,
      conditional: true,
      summary: "taped",
    });
    expect(decidedOf({ lastSeq: 13, blocks: { close: [] } as never })).toEqual({ decidedOn: 13, conditional: false });
    expect(Object.keys(errors(handoverForm, {}, owed))).toEqual(["summary"]);
  });
});

describe("the story", () => {
  const story: Bodies["story"] = { complaint: "Hiss", symptoms: [HISS], verified: "seen", since: "May" };
  it("stands in its form as it was told last, and what is emptied is gone", () => {
    expect(toRecord(storyForm, {}, { story }).record).toEqual(story);
    expect(toRecord(storyForm, { since: "", when: "cold" }, { story }).record).toEqual({
      complaint: "Hiss",
      symptoms: [HISS],
      verified: "seen",
      when: "cold",
    });
    expect(toRecord(storyForm, { complaint: "Hiss" }, { story: undefined }).record).toMatchObject({ verified: "not-tried" });
    expect(Object.keys(errors(storyForm, { complaint: " " }, { story: undefined }))).toEqual(["complaint"]);
  });
});

describe("conditions", () => {
  const none = { conditions: undefined };
  const hPa = (value: number) => ({ value, unit: "hPa", kind: "absolute" }) as const;
  it("take what was read here before what is worked out", () => {
    expect(toRecord(conditionsForm, { ambient: "29.7 inHg", bayTemperature: "63 °F" }, none).record).toEqual({
      ambient: { value: 29.7, unit: "inHg", kind: "absolute" },
      bayTemperature: { value: 63, unit: "°F" },
    });
    // A report that was typed and then left for a reading made here says nothing.
    const left = { basis: "station", seaLevel: "1018", altitude: "900", ambient: "1006", bayTemperature: "17" };
    expect(toRecord(conditionsForm, left, none).record).toEqual({
      ambient: hPa(1006),
      bayTemperature: { value: 17, unit: "°C" },
    });
  });

  it("work out the station pressure from a report or an altitude, and name what is missing for it", () => {
    const report = { basis: "report", seaLevel: "1018", altitude: "900 m", bayTemperature: "17" };
    const { record } = toRecord(conditionsForm, report, none);
    // ISA lapse: 1018 hPa at sea level is about 914 hPa at 900 m.
    expect(record?.ambient.value).toBeCloseTo(914, -0.5);
    expect(record).toMatchObject({ seaLevel: hPa(1018), altitude: { value: 900, unit: "m" } });
    expect(workedOut(formStateOf(conditionsForm.fields, report, none))).toEqual(record?.ambient);
    expect(errors(conditionsForm, { ...report, altitude: "" }, none)).toMatchObject({
      altitude: expect.stringContaining("altitude"),
    });
    expect(errors(conditionsForm, { ...report, seaLevel: "" }, none)).toMatchObject({
      seaLevel: expect.stringContaining("report"),
    });
    // What was read off a report stands again as a report.
    expect(toRecord(conditionsForm, {}, { conditions: record }).record).toEqual(record);
  });

  it("asks for both, and says no more than was asked", () => {
    const given = formStateOf(conditionsForm.fields, {}, none);
    expect(Object.keys(conditionsForm.fields).filter((name) => isRequired(conditionsForm, name, given))).toEqual(
      expect.arrayContaining(["ambient", "bayTemperature"]),
    );
    expect(Object.keys(errors(conditionsForm, {}, none))).toEqual(["ambient", "bayTemperature"]);
  });
});

describe("codes", () => {
  const recorded: CodeRead[] = [
    { code: "P0442", status: "stored", criteria: { text: "cold start", leak: { value: 0.02, unit: "in" } } },
    { code: "P0171", status: "current", freezeFrame: "720 rpm", frame: { rpm: 720 }, module: "engine", asideReason: "known" },
  ];
  it("stand in the form as they were read, and come out the same", () => {
    expect(toRecord(codesForm, {}, { codes: recorded }).record).toEqual({ codes: recorded });
    expect(toRecord(codesForm, {}, { codes: [] }).record).toEqual({ codes: [] });
  });
  it("say at its own field what cannot be read of a code's criteria, rather than drop it", () => {
    const rows = [{ code: "P0442", status: "stored", criteria: { leak: "0.5 furlong" } }];
    expect(Object.keys(errors(codesForm, { codes: rows }, { codes: [] }))).toEqual(["codes.0.criteria.leak"]);
  });
  it("are typed as people type them", () => {
    expect(toRecord(codeReadForm, { code: " p0171 " }, undefined).record).toEqual({ code: "P0171", status: "current" });
    expect(errors(codeReadForm, { code: "lean!" }, undefined)).toEqual({ code: expect.stringContaining("like P0171") });
    expect(errors(codeReadForm, {}, undefined)).toEqual({ code: expect.stringContaining("like P0171") });
  });
  it("keep what was said about one that is read again", () => {
    const rows = [{ code: "P0442", status: "pending", asideReason: "cap was open" }, { code: "P0300" }];
    expect(withCode(rows, { code: "P0442", status: "stored" })).toEqual([
      { code: "P0300" },
      { code: "P0442", status: "stored", asideReason: "cap was open" },
    ]);
  });
});
