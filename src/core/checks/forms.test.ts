import { isDeepStrictEqual } from "node:util";
import { describe, expect, it } from "vitest";
import { COLD_AIR, contextOf, TURBO, VAPOUR } from "../core.fixture";
import type { Form } from "../form";
import { type FormField, formStateOf, getIn, labelOf, setIn, toDraft, toRecord } from "../form";
import { CHECK_IDS, CHECKS, type CheckId, judgeCheck } from ".";
import { airflowForm } from "./airflow/fields";
import { backPressureForm } from "./back-pressure/fields";
import { benchPartForm } from "./bench-part/fields";
import { boostForm } from "./boost/fields";
import { borescopeForm } from "./borescope/fields";
import { cabinForm } from "./cabin/fields";
import { capForm } from "./cap/fields";
import { chainForm } from "./chain/fields";
import { type CheckFacts, equipmentOf } from "./check-form";
import { circuitForm } from "./circuit/fields";
import { crankcaseForm } from "./crankcase/fields";
import { decayForm } from "./decay/fields";
import { egrForm } from "./egr/fields";
import * as vapour from "./evap.fixture";
import { exampleOf } from "./example.fixture";
import { gasForm } from "./exhaust-gas/fields";
import { filterForm } from "./filter/fields";
import { holdForm } from "./hold/fields";
import { instrumentDoubt, offZero } from "./instrument";
import { outputForm } from "./output/fields";
import { pinchForm } from "./pinch/fields";
import { pressureTestForm } from "./pressure-test/fields";
import { probeForm } from "./probe/fields";
import { pulldownForm } from "./pulldown/fields";
import * as good from "./records.fixture";
import { secondaryAirForm } from "./secondary-air/fields";
import { tankSensorForm } from "./tank-sensor/fields";
import { trimPointForm, trimsForm } from "./trims/fields";
import { vacuumForm } from "./vacuum/fields";
import { valveForm } from "./valve/fields";
import { ventPathForm } from "./vent-path/fields";

const context = contextOf(VAPOUR);
/** As after a morning's work: every field that can know something knows something else than the record says. */
const known: CheckFacts = {
  context,
  instruments: [],
  ambient: { value: 951, unit: "hPa", kind: "absolute" },
  temperature: { value: -4, unit: "°C" },
  warm: false,
  required: { size: { value: 1.016, unit: "mm" }, source: "another code's criteria" },
  fuelLevel: 33,
  places: context.layout.joints,
  place: { id: "dipstick", because: "The most suspect" },
};

/** The same of a car with a compressor, for what others have not. */
const turbo = contextOf(TURBO);
const air = contextOf(COLD_AIR);
const knownFor = (name: string): CheckFacts => {
  const [id = "", example] = name.split(", ");
  if (example === "its example") {
    const context = contextOf(exampleOf(id as CheckId).vehicle);
    return { ...known, context, places: context.layout.joints };
  }
  const other = name === "pressure test" || name === "egr" ? turbo : name === "secondary air" ? air : undefined;
  return other ? { ...known, context: other, places: other.layout.joints } : known;
};

const FORMS: Readonly<Record<string, readonly [Form<never, CheckFacts>, object]>> = {
  airflow: [airflowForm, good.airflow],
  borescope: [borescopeForm, good.borescope],
  cap: [capForm, vapour.capRecord()],
  chain: [chainForm, good.chain],
  circuit: [circuitForm, good.circuit],
  crankcase: [crankcaseForm, good.crankcase],
  decay: [decayForm, vapour.decayRecord(0.5, { blocked: ["vent-filter"] }, 0.5)],
  "decay without a reference": [
    decayForm,
    vapour.decayRecord(0.5, {
      blocked: ["vent-valve"],
      vent: { by: "command", at: -7, seconds: 60 },
      required: undefined as never,
    }),
  ],
  filter: [filterForm, good.filter],
  "secondary air": [secondaryAirForm, good.secondaryAir],
  boost: [boostForm, good.boost],
  "exhaust gas": [gasForm, good.exhaustGas],
  egr: [egrForm, good.egr],
  "back pressure": [backPressureForm, good.backPressure],
  "bench part": [benchPartForm, good.benchPart],
  cabin: [cabinForm, good.cabin],
  hold: [holdForm, good.hold],
  output: [outputForm, good.output],
  pinch: [pinchForm, good.pinch],
  "pressure test": [pressureTestForm, good.pressure],
  "pinch of a flow": [pinchForm, { ...good.pinch, reads: "flow", unit: "cc/min" }],
  probe: [probeForm, good.probe()],
  pulldown: [pulldownForm, vapour.pulldownTrace()],
  "tank sensor": [tankSensorForm, vapour.tankSensorRecord()],
  trims: [trimsForm, good.survey({})],
  vacuum: [vacuumForm, good.vacuum],
  valve: [valveForm, good.valve],
  "valve, one state": [valveForm, { ...good.valve, energised: undefined }],
  "valve, cycles": [
    valveForm,
    { ...good.valve, cycles: [{ temperature: "cold", commanded: 10, shut: 10, passed: 9, released: 10 }], vents: true },
  ],
  "vent path": [ventPathForm, vapour.ventPathRecord()],
} as never;

// A check that has no record among the tests' own is tried by its example.
for (const id of CHECK_IDS)
  if (CHECKS[id].form && !Object.values(FORMS).some(([form]) => form === (CHECKS[id].form as unknown)))
    (FORMS as Record<string, unknown>)[`${id}, its example`] = [CHECKS[id].form, exampleOf(id).record];

const plain = (record: object) => JSON.parse(JSON.stringify(record));

describe("every check's form", () => {
  it.each(Object.entries(FORMS))("gives %s back as it was recorded, whatever is known now", (name, [form, record]) => {
    const known = knownFor(name);
    const { record: again, errors } = toRecord(form as Form<object, CheckFacts>, toDraft(form, record as never, known), known);
    expect(errors).toBeUndefined();
    expect(plain(again as object)).toEqual(plain(record));
  });

  it.each(Object.entries(FORMS))(
    "says of an empty one what %s needs, each at a field that is there, in words",
    (name, [form]) => {
      const known = knownFor(name);
      const { errors = [], record } = toRecord(form as Form<object, CheckFacts>, {}, { ...known, ambient: undefined } as never);
      expect(record).toBeUndefined();
      for (const { field, message } of errors) {
        expect(message).not.toMatch(/\bpath\b|undefined|\bnull\b|must be|\$\{|required field/);
        const holder = Object.keys(form.fields).find((name) => field === name || field.startsWith(`${name}.`));
        if (field !== "") expect(holder, field).toBeDefined();
      }
    },
  );

  it("takes nothing for said that nobody said: from nothing typed no check is judged", () => {
    for (const [name, [form]] of Object.entries(FORMS))
      expect(toRecord(form as Form<object, CheckFacts>, {}, knownFor(name)).errors?.length, name).toBeGreaterThan(0);
  });

  it.each(Object.entries(FORMS))(
    "says nothing of %s that nobody said: a question left open is asked, or nothing is made of it",
    (name, [form, record]) => {
      // Nothing is known beforehand that could answer it.
      const { warm: _, ...unknowing } = knownFor(name);
      const check = CHECK_IDS.find((id) => CHECKS[id].form === (form as unknown));
      const draft = toDraft(form, record as never, unknowing);
      const said = (answers: object) => {
        const { record: made, errors } = toRecord(form as Form<object, CheckFacts>, { ...draft, ...answers }, unknowing);
        if (!made || !check) return { errors, sentences: new Set<string>() };
        const { headline, reasons } = judgeCheck(check, made, unknowing.context);
        return { made, errors, sentences: new Set([headline, ...reasons]) };
      };
      const open = Object.entries<FormField<CheckFacts>>(form.fields).filter(
        ([, f]) => (f.type === "answer" || f.type === "tick") && !f.aside,
      );
      for (const [field, { type }] of open) {
        const answer = (value: unknown) => said(setIn(draft, field, value));
        const untouched = answer(undefined);
        if (untouched.errors?.some((e) => e.field === field && e.missing)) continue;
        expect(getIn(untouched.made, field), field).toBeUndefined();
        const good = answer(getIn(draft, field));
        const other = answer(type === "tick" ? getIn(draft, field) !== true : getIn(draft, field) === "yes" ? "no" : "yes");
        // The other answer is nobody's: either it changes nothing, or what it makes the verdict say is not said.
        if (!isDeepStrictEqual(untouched.sentences, good.sentences))
          expect(untouched.sentences, field).not.toEqual(other.sentences);
      }
    },
  );

  it.each(Object.entries(FORMS))("names every number of %s with its unit, where it is not counted", (name, [form, record]) => {
    const known = knownFor(name);
    const given = formStateOf(form.fields, toDraft(form, record as never, known), known);
    for (const field of Object.values(form.fields))
      if (field.type === "number" && field.bare !== "strokes" && field.bare !== "times")
        expect(labelOf(field, given)).toMatch(/%|, (s|g|mm|ppm)$|λ|rpm|rpm|inHg|cc\/min|gauge/);
  });
});

describe("a gauge off zero", () => {
  it("is said when it is typed, by the rule that its reading is judged by", () => {
    for (const [zero, off] of [
      [0.1, false],
      [-0.1, false],
      [-0.11, true],
      [0.4, true],
    ] as const) {
      const use = good.gauge({ zero, division: 0.1 });
      expect(offZero(use) !== undefined).toBe(off);
      expect(instrumentDoubt(use, 90e3, context.limits) !== undefined).toBe(off);
    }
  });
});

describe("what is known", () => {
  it("fills what nobody touched, and never what the record left out", () => {
    const asks = (draft: object) => toRecord(pulldownForm, draft as never, known).errors?.some((f) => f.field === "fuelLevel");
    expect(asks({})).toBe(false);
    expect(asks({ fuelLevel: "" })).toBe(true);
    const cold = toRecord(valveForm, { ...toDraft(valveForm, good.valve, known), temperature: undefined }, known);
    expect(cold.record?.temperature).toBe("cold");
  });

  it("says which conditions are missing, since no field here asks for them", () => {
    const { ambient: _, ...without } = known;
    const { kept: _kept, ...fresh } = toDraft(vacuumForm, good.vacuum, known);
    const { errors = [] } = toRecord(vacuumForm, fresh, without);
    expect(errors).toEqual([{ field: "", message: expect.stringContaining("Set the conditions first"), missing: true }]);
  });
});

describe("the shop's own equipment", () => {
  const turboKnown: CheckFacts = { context: turbo, instruments: [], places: turbo.layout.joints };
  const record = toRecord(
    pressureTestForm,
    {
      entry: "hot-pipe-clamp",
      ratings: { tool: "2 bar" },
      maxBoost: "1.1 bar",
      steps: [{ pressure: "0.5 bar" }],
      instrument: { id: "other", name: "Old gauge", division: "0.02 bar", zero: "0.03 bar", end: "2.5 bar" },
    },
    turboKnown,
  ).record as object;
  const lastUse = equipmentOf(pressureTestForm, record);
  const next = formStateOf(pressureTestForm.fields, {}, { ...turboKnown, ...(lastUse ? { lastUse } : {}) });

  it("is the same on the next car, and says so", () => {
    expect(next.value("ratings.tool")).toBe("2 bar");
    const { hint } = pressureTestForm.fields["ratings.tool"];
    expect(typeof hint === "function" && hint(next)).toMatch(/As on the last car/);
    expect(next.value("instrument")).toMatchObject({ name: "Old gauge", division: "0.02 bar", end: "2.5 bar" });
  });

  it("brings no reading along: what a gauge shows with nothing on it, a stop, or what the last engine boosts to", () => {
    expect(next.value("instrument")).not.toHaveProperty("zero");
    for (const name of ["maxBoost", "entry"] as const) expect(next.value(name)).not.toBe(getIn(record, name));
    expect(JSON.stringify(next.value("steps"))).not.toMatch(/bar/);
  });

  it("is one gauge or the other: with another division the old one's name is gone, with its zero typed it stays", () => {
    const gauge = (typed: object) => formStateOf(pressureTestForm.fields, { instrument: typed }, next.known).value("instrument");
    expect(gauge({ zero: "0.01 bar", id: undefined })).toMatchObject({
      name: "Old gauge",
      division: "0.02 bar",
      zero: "0.01 bar",
    });
    expect(gauge({ division: "0.05 bar" })).toEqual({ id: "other", division: "0.05 bar", end: "2.5 bar" });
  });

  it.each([
    { ratings: { tool: "two" }, instrument: 7 },
    { ratings: 3, instrument: { name: "x", division: {} } },
    { ratings: [] },
  ])("is nothing where a device kept something else: %o", (damaged) => {
    const state = formStateOf(pressureTestForm.fields, {}, { ...turboKnown, lastUse: damaged });
    expect(state.value("ratings.tool")).toBeUndefined();
    expect(state.value("instrument")).toBeUndefined();
  });

  it("of a record without any is nothing to keep", () => {
    expect(equipmentOf(cabinForm, { seals: [] })).toBeUndefined();
  });
});

describe("a typed point of a survey", () => {
  const engine = { banks: 2, turbo: false } as const;
  const point = { rpm: "720", maf: "2,6", bank1: { short: "4", long: "12" }, bank2: { short: "1 %" } };
  const banksOf = (change: object, known: { banks: 1 | 2; turbo: boolean } = engine) =>
    toRecord(trimPointForm, { ...point, ...change }, known).record?.banks;
  it("is a point of as many banks as the engine has; a long-term trim that was not typed is not zero", () => {
    expect(banksOf({})).toEqual([{ short: 4, long: 12 }, { short: 1 }]);
    expect(banksOf({}, { ...engine, banks: 1 })).toEqual([{ short: 4, long: 12 }]);
  });
  it("is a total alone, where the tool shows only that", () => {
    expect(banksOf({ bank2: { total: "16" } })).toEqual([{ short: 4, long: 12 }, { total: 16 }]);
    const both = toRecord(trimPointForm, { ...point, bank2: { short: "1", total: "3" } }, engine);
    expect(both.errors).toMatchObject([{ field: "bank2.total", message: expect.stringContaining("either") }]);
  });
  it("takes the two ends that a trim swings between, and how far they lie apart", () => {
    expect(banksOf({ bank2: { short: "−8 … −15", long: "0" } })?.[1]).toEqual({ short: -11.5, long: 0, scatter: 2.021 });
    expect(banksOf({ bank2: { short: "-8 to -15 %", long: "2..4" } })?.[1]).toEqual({ short: -11.5, long: 3, scatter: 2.102 });
  });
  it("says which bank is missing", () => {
    const errors = (change: object) => toRecord(trimPointForm, { ...point, ...change }, engine).errors;
    expect(errors({ bank2: {} })).toMatchObject([{ field: "bank2.short", missing: true }]);
    expect(errors({ bank1: { short: "4", long: "400" } })).toMatchObject([{ field: "bank1.long" }]);
    expect(errors({ bank1: { short: "4 … 5 … 6" } })).toMatchObject([{ field: "bank1.short", missing: false }]);
  });
});
