import { describe, expect, it } from "vitest";
import { toRecord } from "../form";
import { validate } from "../input";
import {
  ballCurve,
  type Calibration,
  calibrationForm,
  DEFAULT_HOUSE,
  DEFAULT_LIMITS,
  DEFAULT_SHOP,
  instrumentForm,
  liftShop,
  limitsForm,
  limitsTyped,
  type Machine,
  proofDrift,
  type Shop,
  shopSchema,
} from "./settings";

const says = (change: Partial<Record<keyof Shop, unknown>>) => {
  try {
    validate(shopSchema, { ...DEFAULT_SHOP, ...change });
    return "taken";
  } catch (error) {
    return (error as Error).message;
  }
};
const machine = {
  id: "m1",
  name: "Fen smoker",
  ratedPressure: { value: 13, unit: "inH2O", kind: "gauge" },
  maxFlow: { value: 12, unit: "L/min" },
  autoOff: 300,
  kind: "low-pressure",
  service: [],
};
const calibration = {
  on: "2026-03-02",
  pressure: { value: 13, unit: "inH2O", kind: "gauge" },
  points: [
    { height: 3.1, diameter: { value: 0.02, unit: "in" } },
    { height: 9.6, diameter: { value: 0.04, unit: "in" } },
  ],
};

describe("shop settings", () => {
  it("have a source for every limit, and the trade's defaults", () => {
    for (const limit of Object.values(DEFAULT_LIMITS)) expect(limit.source).toBe("shop default");
    expect(DEFAULT_LIMITS).toMatchObject({
      trimGood: { value: 0.05 },
      trimAct: { value: 0.1 },
      machineProof: { value: 0.85 },
      smokeAutoOff: { value: 300 },
      steadyTime: { value: 5 },
    });
    expect(DEFAULT_LIMITS.warmCoolant.value).toBeCloseTo(348.15, 9);
  });

  it.each<[Partial<Record<keyof Shop, unknown>>, RegExp]>([
    [{}, /^taken$/],
    [{ machines: [machine] }, /^taken$/],
    [{ machines: [{ ...machine, calibration }] }, /^taken$/],
    [{ machines: [{ ...machine, calibration: { ...calibration, points: [] } }] }, /at least one reference hole/],
    [
      {
        machines: [
          {
            ...machine,
            calibration: {
              ...calibration,
              points: [...calibration.points, { height: 11, diameter: { value: 0.01, unit: "in" } }],
            },
          },
        ],
      },
      /bigger reference hole must lift the ball higher/,
    ],
    [{ machines: [{ ...machine, service: [{ on: "yesterday", what: "fluid", note: "" }] }] }, /A day looks like/],
    [{ instruments: [{ id: "i", name: "Gauge", division: { value: 0.5, unit: "inHg" } }] }, /^taken$/],
    [{ instruments: [{ id: "i", name: "Meter", division: { value: 0.01, unit: "V" } }] }, /^taken$/],
    [{ instruments: [{ id: "i", name: "Gauge", division: { value: 0.5, unit: "mm" } }] }, /not known here/],
    [{ name: "" }, /Name the shop/],
    [{ limits: { ...DEFAULT_LIMITS, trimAct: { value: 0.2, source: " " } } }, /where this limit comes from/],
    [{ limits: { ...DEFAULT_LIMITS, trimAct: { value: Number.NaN, source: "us" } } }, /trimAct/],
    [{ limits: { ...DEFAULT_LIMITS, courage: { value: 1, source: "us" } } }, /courage/],
    [{ house: { ...DEFAULT_HOUSE, totalTrim: "guess" } }, /totalTrim/],
    [{ machines: [{ ...machine, ratedPressure: { value: 13, unit: "psi" } }] }, /out of range for rated pressure. Did you mean/],
    [{ machines: [{ ...machine, ratedPressure: { value: 13, unit: "inH2O", kind: "absolute" } }] }, /gauge, not absolute/],
    [{ machines: [{ ...machine, maxFlow: { value: 12, unit: "inH2O" } }] }, /unit "inH2O" is not known here/],
    [{ machines: [{ ...machine, autoOff: 3 }] }, /at least 10 s/],
  ])("%j", (change, message) => {
    expect(says(change)).toMatch(message);
  });
});

describe("a shop of an earlier version", () => {
  it("is lifted: what it did not know is at its default, what it says stays", () => {
    const { kind: _, service: __, ...old } = machine;
    const lifted = liftShop({
      name: "Ferrowick Slip Garage",
      limits: { trimGood: { value: 0.04, source: "set by this shop" } },
      house: { totalTrim: "sum" },
      machines: [old],
    });
    expect(() => validate(shopSchema, lifted)).not.toThrow();
    expect(lifted).toMatchObject({
      limits: { trimGood: { value: 0.04 }, holdLoss: DEFAULT_LIMITS.holdLoss },
      house: { totalTrim: "sum", dye: "clean" },
      machines: [{ kind: "low-pressure", service: [] }],
      instruments: [],
    });
  });
  it("is refused when it was wrong, not repaired", () => {
    expect(() => validate(shopSchema, liftShop({ name: "x", limits: 3, house: {}, machines: [] }))).toThrow();
    expect(liftShop(null)).toBeNull();
  });
});

describe("calibration", () => {
  it("gives the flow of each reference hole at its height, and says when a height lies beyond", () => {
    const curve = ballCurve(calibration as Calibration, { ambient: 101325, temperature: 293.15 });
    // Published: 0.020 in passes 0.543 L/min at 13 inH2O, 0.040 in 2.174 L/min
    expect(curve.flowAt(3.1).flow * 6e4).toBeCloseTo(0.543, 2);
    expect(curve.flowAt(9.6).flow * 6e4).toBeCloseTo(2.174, 2);
    expect(curve.flowAt(12)).toMatchObject({ extrapolated: true });
  });
});

describe("proof history", () => {
  const series = (shares: number[]) => shares.map((share, i) => ({ at: `2026-03-${String(i + 1).padStart(2, "0")}`, share }));
  it("names a machine whose proof drifts, and how far", () => {
    const drift = proofDrift(series([0.99, 0.975, 0.965, 0.95, 0.93, 0.915]));
    expect(drift?.fall).toBeCloseTo(0.075, 2);
    expect(drift?.last).toBe(0.915);
  });
  it.each([
    ["scatter without a trend", [0.97, 0.99, 0.96, 0.985, 0.97, 0.98]],
    ["too few proofs", [0.99, 0.95, 0.9, 0.86]],
    ["a rise", [0.9, 0.92, 0.94, 0.96, 0.98]],
    ["a fall nobody would notice", [0.99, 0.988, 0.986, 0.984, 0.982]],
  ])("says nothing of %s", (_name, shares) => {
    expect(proofDrift(series(shares))).toBeUndefined();
  });
});

describe("a calibration as it is typed", () => {
  const machine = { maxFlow: { value: 12, unit: "L/min" }, ratedPressure: { value: 13, unit: "inH2O" } } as Machine;
  const typed = (points: string) => toRecord(calibrationForm, { points }, { machine });

  it("takes a hole and a height a line, whatever stands between them", () => {
    expect(typed("0.020 in 1.1\n\n 0,7 mm: 3,0 \n0.040 in = 9.6").record?.points).toEqual([
      { diameter: { value: 0.02, unit: "in" }, height: 1.1 },
      { diameter: { value: 0.7, unit: "mm" }, height: 3 },
      { diameter: { value: 0.04, unit: "in" }, height: 9.6 },
    ]);
  });
  it.each(["0.020 in", "3.1", "two holes 3", "0.020 in high"])("says what is wrong with %j", (text) => {
    expect(
      typed(text)
        .errors?.map((e) => e.message)
        .join(),
    ).toMatch(/write the hole, then the ball's height/);
  });
});

describe("a gauge as it is typed", () => {
  const typed = (draft: object) => toRecord(instrumentForm, { name: "Slack tube", ...draft }, undefined);
  const says = (draft: object) =>
    typed(draft)
      .errors?.map((e) => `${e.field}: ${e.message}`)
      .join("; ");

  it("is a gauge or a meter by the unit of its division, and its scale ends in that unit where none is typed", () => {
    expect(typed({ division: "0.5 inHg", end: "30", reads: "vacuum" }).record).toMatchObject({
      division: { value: 0.5, unit: "inHg" },
      end: { value: 30, unit: "inHg" },
      reads: "vacuum",
    });
    const meter = typed({ division: "0.01 V", end: "20", reads: "vacuum" }).record;
    expect(meter).toMatchObject({ division: { value: 0.01, unit: "V" }, end: { value: 20, unit: "V" } });
    expect(meter).not.toHaveProperty("reads");
  });

  it("says at its field what is wrong", () => {
    expect(says({ division: "0.1 furlong" })).toMatch(/^division: .*volts for a meter/);
    expect(says({ division: "0.5 inHg", end: "0.2" })).toMatch(/end: A scale ends further up/);
    expect(says({ division: "0.5 inHg", end: "12 V" })).toMatch(/end: /);
    expect(says({})).toMatch(/State one division/);
  });
});

describe("limits as they are typed", () => {
  const { limits } = DEFAULT_SHOP;
  it("keeps what was not touched to the last digit, and says of the rest who set it", () => {
    const { record } = toRecord(limitsForm, { trimAct: "8" }, { limits });
    expect(limitsTyped(record as NonNullable<typeof record>, limits)).toEqual({
      ...limits,
      trimAct: { value: 0.08, source: "set by this shop" },
    });
    const back = { ...limits, trimAct: { value: 0.08, source: "set by this shop" } };
    const again = toRecord(limitsForm, { trimAct: "10" }, { limits: back }).record;
    expect(limitsTyped(again as NonNullable<typeof again>, back)).toEqual(limits);
  });
  it("names the one that is no number", () => {
    expect(toRecord(limitsForm, { trimAct: "ten" }, { limits }).errors).toMatchObject([{ field: "trimAct" }]);
  });
});
