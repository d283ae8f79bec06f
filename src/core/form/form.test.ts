import fc from "fast-check";
import { describe, expect, it } from "vitest";
import * as yup from "yup";
import {
  answer,
  choice,
  type Draft,
  fields,
  formStateOf,
  getIn,
  group,
  isRequired,
  list,
  number,
  plain,
  quantity,
  readGauge,
  setIn,
  text,
  tick,
  toDraft,
  toRecord,
} from ".";
import { formOf } from "./form-of";
import { gaugeTyped } from "./gauge";

const bodyFields = fields({
  pressure: quantity("vacuum", { label: "Vacuum", units: ["inHg"], example: "19", missing: "Type the vacuum" }),
  rpm: number({ name: "The speed", label: "Speed", bare: "rpm", min: [200, "Below any idle"] }).optional(),
  kind: choice({ a: "A", b: "B" }, { label: "Kind", missing: "Say which", silent: ["none"] }),
  moved: answer({ label: "Moves", yes: "Yes", no: "No", open: "Not tried" }).optional(),
  held: group({
    start: number({
      name: "The start",
      label: "Start",
      unit: "inHg",
      above: [0, "Nothing was put on"],
      missing: "Type the start",
    }),
    seconds: number({ name: "The time", label: "After", bare: "s", defaultValue: "60" }),
  }),
  rows: list(
    group({
      name: text({ name: "The name", label: "Name", missing: "Name it" }),
      count: number({ name: "The count", label: "Count", max: [9, "At most 9"], missing: "Count it" }),
    }),
    { label: "Rows", blank: {}, max: 3 },
  ),
  proved: tick({ label: "Proved" }),
  unit: plain<string>(yup.string(), "No unit"),
}).rule("rpm", "With b the speed is needed", ({ kind, rpm }) => kind !== "b" || rpm !== undefined);

const form = formOf<{ usual?: string }>()(bodyFields, {
  ask: { rpm: { defaultValue: ({ known }) => known.usual } },
  computed: { unit: () => "inHg" },
});

const draft: Draft = {
  pressure: "19,5",
  kind: "a",
  held: { start: "18" },
  rows: [{}, { name: "x", count: "3" }],
};
const record = {
  pressure: { value: 19.5, unit: "inHg", kind: "vacuum" },
  kind: "a",
  held: { start: 18, seconds: 60 },
  rows: [{ name: "x", count: 3 }],
  proved: false,
  unit: "inHg",
};
const errorsOf = (change: Draft, known = {}) =>
  Object.fromEntries((toRecord(form, { ...draft, ...change }, known).errors ?? []).map((f) => [f.field, f.message]));

describe("a form", () => {
  it("makes the record of what was typed; what was not touched is what is known, and nothing where nothing is", () => {
    expect(toRecord(form, draft, {}).record).toEqual(record);
    expect(toRecord(form, draft, { usual: "740 rpm" }).record).toEqual({ ...record, rpm: 740 });
    expect(toRecord(form, { ...draft, rpm: "" }, { usual: "740" }).record).toEqual(record);
    expect(toRecord(form, { ...draft, moved: "no" }, {}).record).toEqual({ ...record, moved: false });
    expect(toRecord(form, { ...draft, moved: "open" }, {}).record).toEqual(record);
  });

  it("takes another unit where the record has one, and the words people put behind a number", () => {
    expect(toRecord(form, { ...draft, held: { start: "60.96 kPa", seconds: "45 s" } }, {}).record?.held).toEqual({
      start: expect.closeTo(18, 2),
      seconds: 45,
    });
  });

  it("says at the field what is wrong with it, and keeps apart what is missing", () => {
    expect(toRecord(form, {}, {}).errors).toEqual([
      { field: "pressure", message: "Type the vacuum", missing: true },
      { field: "kind", message: "Say which", missing: true },
      { field: "held.start", message: "Type the start", missing: true },
    ]);
    expect(errorsOf({ pressure: "19 volts" })).toEqual({ pressure: expect.stringContaining("measures voltage") });
    expect(errorsOf({ pressure: "190" })).toEqual({ pressure: expect.stringContaining("Did you mean") });
    expect(errorsOf({ rpm: "12" })).toEqual({ rpm: "Below any idle" });
    expect(errorsOf({ held: { start: "0" } })).toEqual({ "held.start": "Nothing was put on" });
    expect(errorsOf({ kind: "b" })).toEqual({ rpm: "With b the speed is needed" });
    expect(errorsOf({ kind: "c" })).toEqual({ kind: "Choose one that is offered here" });
  });

  it("says in which row, though blank rows before it are no rows", () => {
    expect(errorsOf({ rows: [{}, { name: "", count: "12" }] })).toEqual({
      "rows.1.name": "Name it",
      "rows.1.count": "At most 9",
    });
    expect(errorsOf({ rows: [{ name: "x", count: "many" }] })).toEqual({ "rows.0.count": '"many" is not a number' });
  });

  it("crashes at nothing that a kept draft could hold", () => {
    const anything = fc.dictionary(
      fc.constantFrom(...Object.keys(form.fields), "held", "__proto__", "startedAt"),
      fc.jsonValue(),
    );
    fc.assert(
      fc.property(anything, (kept) => {
        const { record, errors } = toRecord(form, kept, {});
        expect(record === undefined).toBe((errors?.length ?? 0) > 0);
      }),
    );
  });

  it("stands again as it was recorded: back and forth gives the same record, whatever is known meanwhile", () => {
    const again = toDraft(form, record as never, { usual: "999" });
    expect(toRecord(form, again, { usual: "999" }).record).toEqual(record);
  });

  it("knows from the schema what is required", () => {
    const state = formStateOf(form.fields, draft, {});
    expect(Object.keys(form.fields).filter((name) => isRequired(form, name, state))).toEqual([
      "pressure",
      "kind",
      "held.start",
      "held.seconds",
      "rows",
    ]);
  });
});

describe("paths", () => {
  it("put and get the same, make lists for numbers, and follow own names only", () => {
    expect(setIn({}, "banks.1.short", 4)).toEqual({ banks: [undefined, { short: 4 }] });
    expect(getIn(setIn({ a: { b: 1 } }, "a.c", 2), "a")).toEqual({ b: 1, c: 2 });
    expect(getIn({}, "constructor.name")).toBeUndefined();
  });
});

describe("a gauge in a form", () => {
  const shop = [
    { id: "fine", name: "Fine", division: { value: 0.02, unit: "inHg" } },
    { id: "coarse", name: "Coarse", division: { value: 1, unit: "inHg" } },
  ] as never;
  const range = { measures: "pressure", reach: 90e3 } as const;

  it("is none that reads the other way, however fine, unless it is chosen", () => {
    const both = [
      ...(shop as object[]),
      { id: "exhaust", name: "Exhaust", division: { value: 0.2, unit: "kPa" }, reads: "pressure" },
    ];
    const vacuum = { ...range, reads: "vacuum" } as const;
    expect(readGauge(undefined, range, both as never).value).toMatchObject({ name: "Exhaust" });
    expect(readGauge(undefined, vacuum, both as never).value).not.toMatchObject({ name: "Exhaust" });
    expect(readGauge({ id: "exhaust" }, vacuum, both as never).value).toMatchObject({ name: "Exhaust" });
    expect(readGauge(undefined, vacuum, both.slice(2) as never).value).toMatchObject({ name: "Exhaust" });
  });

  it("is the shop's finest that reaches, until another is chosen or typed", () => {
    expect(readGauge(undefined, range, shop).value).toMatchObject({ name: "Coarse", zero: { value: 0, unit: "inHg" } });
    expect(readGauge({ id: "fine", zero: "0.2" }, range, shop).value).toMatchObject({ name: "Fine", zero: { value: 0.2 } });
    expect(readGauge({ id: "other" }, range, shop).wrong).toMatchObject({ part: "division" });
    expect(readGauge({ id: "other", division: "0 inHg" }, range, shop).wrong).toMatchObject({ part: "division" });
    expect(readGauge({ id: "gone", division: "2 kPa" }, range, []).value).toMatchObject({ division: { value: 2, unit: "kPa" } });
    expect(readGauge({ zero: "none" }, range, shop).wrong).toMatchObject({ part: "zero" });
  });

  it("ends where the shop or the form says, and one that ends too soon is not taken by itself", () => {
    const ends = (name: string, value: number) => ({
      id: name,
      name,
      division: { value: 0.5, unit: "inHg" },
      end: { value, unit: "inHg" },
    });
    const short = [ends("Short", 15), ends("Long", 30)] as never;
    expect(readGauge(undefined, range, short).value).toMatchObject({ name: "Long", end: { value: 30, unit: "inHg" } });
    const typed = { id: "other", division: "0.5 inHg" };
    expect(readGauge({ ...typed, end: "30" }, range, []).value).toMatchObject({ end: { value: 30, unit: "inHg" } });
    expect(readGauge({ ...typed, end: " " }, range, []).value).not.toHaveProperty("end");
    for (const end of ["far", "0.5", "0"]) expect(readGauge({ ...typed, end }, range, []).wrong).toMatchObject({ part: "end" });
    const again = gaugeTyped(readGauge({ ...typed, end: "30" }, range, []).value, []);
    expect(again).toMatchObject({ id: "other", division: "0.5 inHg", end: "30 inHg" });
    expect(gaugeTyped(readGauge({ id: "Short" }, range, short).value, short)).toMatchObject({ id: "Short" });
  });
});
