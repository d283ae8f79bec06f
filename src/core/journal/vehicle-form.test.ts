import { describe, expect, it } from "vitest";
import { NATURAL, TURBO, VAPOUR } from "../core.fixture";
import { type Draft, formStateOf, isRequired, toRecord } from "../form";
import { validate } from "../input";
import { FITTED_SYSTEMS, isKnown, type VehicleRecord, vehicleFacts, vehicleFields } from "../vehicle";
import { vehicleForm } from ".";

const nobody = { vehicle: undefined, by: "Ana" };
const read = (draft: Draft, vehicle?: VehicleRecord) => toRecord(vehicleForm, draft, { ...nobody, vehicle });
const errors = (draft: Draft, vehicle?: VehicleRecord) =>
  Object.fromEntries((read(draft, vehicle).errors ?? []).map((f) => [f.field, f.message]));

describe("the vehicle's facts", () => {
  it("begin with fuel and displacement; what nobody said is left out", () => {
    expect(read({ displacement: "1998 cc" }).record).toEqual({ fuel: "petrol", displacement: { value: 1998, unit: "mL" } });
    const given = formStateOf(vehicleForm.fields, {}, nobody);
    expect(Object.keys(vehicleForm.fields).filter((name) => isRequired(vehicleForm, name, given))).toEqual([
      "displacement",
      "fuel",
    ]);
  });

  it("stand in the form as they are recorded, whichever car it is, and come out the same", () => {
    const full: VehicleRecord = {
      ...VAPOUR,
      tapped: ["manifold"],
      crankcaseBand: { low: { value: -6, unit: "hPa", kind: "gauge" }, high: { value: -1, unit: "hPa", kind: "gauge" } },
      limits: { idleSpeed: { value: 11.5, source: "maker's figure, entered by Bo" } },
      evap: {
        ...(VAPOUR.evap as NonNullable<VehicleRecord["evap"]>),
        monitor: "canister-pump",
        referenceOrifice: { value: 0.5, unit: "mm" },
        requiredLeak: { value: 0.02, unit: "in" },
      },
    } as VehicleRecord;
    for (const vehicle of [NATURAL, TURBO, VAPOUR, full, { fuel: "diesel", displacement: { value: 2, unit: "L" } } as const]) {
      const { record, errors } = read({}, vehicle);
      expect(errors).toBeUndefined();
      expect(record).toEqual({ ...vehicle, fitted: vehicle.fitted && expect.arrayContaining([...vehicle.fitted]) });
      expect(validate(vehicleFields.schema, record)).toEqual(record);
      // What the bench completed to judge by is not what somebody said.
      expect(read({}, vehicleFacts(vehicle)).record).toEqual(record);
    }
  });

  it("keep who entered a maker's figure until the figure is changed", () => {
    const vehicle = {
      ...NATURAL,
      limits: { idleSpeed: { value: 12, source: "maker's figure, entered by Bo" } },
    } as VehicleRecord;
    const again = (typed: string) => read({ limits: { idleSpeed: typed } }, vehicle).record?.limits?.idleSpeed?.source;
    expect(read({}, vehicle).record?.limits).toEqual(vehicle.limits);
    expect(again("999")).toBe("maker's figure, entered by Ana");
    expect(read({ limits: { idleSpeed: "" } }, vehicle).record).not.toHaveProperty("limits");
  });

  it("fit only what somebody looked at", () => {
    // A system that is named is there; of the others nothing was said.
    const named = read({ displacement: "2", fitted: ["secondary-air"] }).record as VehicleRecord;
    expect(named).toMatchObject({ fitted: ["secondary-air"], moreFitted: true });
    const facts = vehicleFacts(named);
    expect(facts.fitted).toEqual(expect.arrayContaining(["secondary-air", "pcv", "evap"]));
    expect(isKnown(facts, "fitted")).toBe(false);
    // Described further, it is asked as it was given.
    expect(read({ fittedKnown: true }, facts as unknown as VehicleRecord).record?.fitted).toEqual(["secondary-air"]);
    expect(isKnown(vehicleFacts({ ...named, moreFitted: undefined }), "fitted")).toBe(true);
    expect(read({ displacement: "2", fitted: ["pcv"], fittedKnown: true }).record?.fitted).toEqual(["pcv"]);
    expect(read({ displacement: "2", fittedKnown: true }).record?.fitted).toEqual([]);
  });

  it.each<[Draft, Draft]>([
    [{ displacement: "" }, { displacement: expect.stringContaining("displacement") }],
    [{ displacement: "2 kPa" }, { displacement: expect.stringContaining("pressure") }],
    [{ year: "98.5" }, { year: expect.stringContaining("whole") }],
    [{ year: "next" }, { year: expect.stringContaining("next") }],
    [
      { fitted: [...FITTED_SYSTEMS], crankcaseBand: { low: "-6" } },
      { "crankcaseBand.high": expect.stringContaining("upper end") },
    ],
    [
      { fitted: [...FITTED_SYSTEMS], crankcaseBand: { low: "-1", high: "-6" } },
      { "crankcaseBand.low": expect.stringContaining("above") },
    ],
    [{ limits: { idleSpeed: "slow" } }, { "limits.idleSpeed": expect.stringContaining("slow") }],
  ])("%j is said at its field", (change, wrong) => {
    expect(errors({ displacement: "1.6", ...change })).toEqual(wrong);
  });
});

describe("the vapour system in the vehicle's form", () => {
  const wrong = (evap: Draft, vehicle: VehicleRecord = VAPOUR) => errors({ evap }, vehicle);

  it("is none where no tank was typed and nothing else was said of it", () => {
    expect(read({ displacement: "1.6", fitted: ["evap"], fittedKnown: true }).record).not.toHaveProperty("evap");
  });

  it("asks for the tank rather than drop what was said besides", () => {
    for (const said of [{ servicePort: true }, { neck: "capless" }, { requiredLeak: "0.5" }, { sensor: { zero: "1.5" } }])
      expect(errors({ displacement: "1.6", fitted: ["evap"], fittedKnown: true, evap: said })).toMatchObject({
        "evap.tank": expect.stringContaining("tank"),
      });
  });

  it.each<[Draft, Draft]>([
    [{ tank: "a lot" }, { "evap.tank": expect.any(String) }],
    [{ tank: "50 furlongs" }, { "evap.tank": expect.any(String) }],
    [{ sensor: { zero: "" } }, { "evap.sensor.zero": expect.stringContaining("volts at zero and its volts per unit") }],
    [{ sensor: { perUnit: "" } }, { "evap.sensor.perUnit": expect.stringContaining("volts at zero and its volts per unit") }],
    [{ sensor: { perUnit: "some" } }, { "evap.sensor.perUnit": expect.stringContaining("some") }],
    [{ sensor: { perUnit: "0" } }, { "evap.sensor.perUnit": expect.stringContaining("slope") }],
    [{ requiredLeak: "0.5 L" }, { "evap.requiredLeak": expect.any(String) }],
    [{ monitor: "canister-pump", referenceOrifice: "x" }, { "evap.referenceOrifice": expect.any(String) }],
    [{ sensor: { zero: "1,5 V", perUnit: "0,6" } }, {}],
    [{ sensor: { zero: "", perUnit: "" } }, {}],
  ])("%j", (change, said) => {
    expect(wrong(change)).toEqual(said);
  });
});
