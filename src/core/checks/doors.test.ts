import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { contextOf, NATURAL, smokeRun, TWO_BANKS } from "../core.fixture";
import { BadInput, validate } from "../input";
import { CHECK_IDS, CHECKS, type CheckId, judgeCheck, readingsOf } from ".";
import * as vapour from "./evap.fixture";
import { exampleOf } from "./example.fixture";
import * as good from "./records.fixture";

/** A record of each check: its example, or one of the tests' own. */
const RECORDS = {
  ...(Object.fromEntries(CHECK_IDS.map((id) => [id, exampleOf(id).record])) as Record<CheckId, object>),
  look: { items: [{ id: "filter", state: "fine" }] },
  trims: good.survey({}),
  probe: good.probe(),
  vacuum: good.vacuum,
  airflow: good.airflow,
  crankcase: good.crankcase,
  smoke: smokeRun(),
  pinch: good.pinch,
  "pressure-test": good.pressure,
  filter: good.filter,
  "secondary-air": good.secondaryAir,
  boost: good.boost,
  "exhaust-gas": good.exhaustGas,
  egr: good.egr,
  "back-pressure": good.backPressure,
  "bench-part": good.benchPart,
  cabin: good.cabin,
  hold: good.hold,
  valve: good.valve,
  output: good.output,
  circuit: good.circuit,
  chain: good.chain,
  borescope: good.borescope,
  "evap-smoke": vapour.evapSmokeRun(),
  decay: vapour.decayRecord(0.5),
  pulldown: vapour.pulldownTrace(),
  "vent-path": vapour.ventPathRecord(),
  cap: vapour.capRecord(),
  "tank-sensor": vapour.tankSensorRecord(),
};
const schemaOf = (check: CheckId) => CHECKS[check].fields.schema;
const refusal = (check: CheckId, record: unknown): string => {
  try {
    validate(schemaOf(check), record);
    return "taken";
  } catch (error) {
    if (!(error instanceof BadInput)) throw error;
    return `${error.path}: ${error.message}`;
  }
};
const volts = (value: number) => ({ value, unit: "V" });

describe("the door of every check", () => {
  it.each(CHECK_IDS)("takes a good %s record, and refuses one with an unknown key or nothing in it", (check) => {
    expect(refusal(check, RECORDS[check])).toBe("taken");
    expect(refusal(check, { ...RECORDS[check], extra: 1 })).toMatch(/unknown|unspecified/i);
    expect(refusal(check, {})).not.toBe("taken");
    expect(refusal(check, null)).not.toBe("taken");
  });

  it.each<[CheckId, object, RegExp]>([
    ["probe", { taps: [] }, /No tap yet/],
    ["probe", { agent: "steam" }, /agent is one of gas, water, soap/],
    ["probe", { series: { time: [0, 1], rpm: [700] } }, /as long as its time/],
    ["probe", { source: { kind: "log", file: "x.csv" } }, /SHA-256/],
    ["probe", { taps: [{ joint: "", at: 3 }] }, /Name the joint/],
    ["vacuum", { vacuum: { value: 19, unit: "inHg", kind: "gauge" } }, /vacuum, not gauge/],
    ["vacuum", { vacuum: { value: 19, unit: "psi" } }, /out of range for vacuum/],
    ["vacuum", { rpm: 90 }, /below any idle/],
    ["vacuum", { needle: "wild" }, /needle is one of/],
    ["vacuum", { ambient: { value: 30, unit: "hPa" } }, /out of range for ambient pressure/],
    ["airflow", { points: [] }, /at idle, at wide open throttle, or both/],
    ["airflow", { points: [{ state: "cruise", rpm: 2000 }] }, /one of idle, wide-open/],
    ["airflow", { points: [{ state: "idle", rpm: 700, maf: { value: -1, unit: "g/s" } }] }, /out of range for MAF flow/],
    ["crankcase", { idle: { value: -3, unit: "psi" } }, /out of range for crankcase pressure/],
    ["crankcase", { idle: { value: -3, unit: "hPa", kind: "absolute" } }, /gauge, not absolute/],
    ["evap-smoke", { fuelLevel: 130 }, /cannot be above 100 %/],
    ["evap-smoke", { vent: { by: "command" } }, /names when the command began/],
    ["evap-smoke", { gas: "steam" }, /gas is one of inert, air/],
    ["decay", { samples: [[0, 10]] }, /at least 4 readings/],
    ["decay", { required: { size: { value: 90, unit: "mm" }, source: "x" } }, /out of range for hole/],
    ["pulldown", { purgeShutAt: 20 }, /phases follow each other/],
    [
      "vent-path",
      { parts: [...vapour.ventPathRecord().parts, ...vapour.ventPathRecord().parts.slice(0, 1)] },
      /less than or equal to 4/,
    ],
    ["cap", { start: 0 }, /Nothing was put on it/],
    ["tank-sensor", { zero: { value: 60, unit: "V" } }, /out of range for voltage/],
    ["pinch", { reads: "vacuum" }, /needs its unit/],
    ["pinch", { shut: "less" }, /While shut off is a number/],
    ["hold", { still: [[0, 20]] }, /at the start and at the end/],
    [
      "hold",
      {
        still: [
          [10, 20],
          [0, 19],
        ],
      },
      /rise in time/,
    ],
    ["hold", { strokes: 0.5 }, /whole number/],
    ["hold", { instrument: { ...good.gauge({}), division: volts(1) } }, /not known here/],
    ["valve", { rest: { start: 0, end: 0, seconds: 60 } }, /nothing was put on it/],
    ["valve", { energised: { start: 18, end: 0, seconds: -1 } }, /cannot be negative/],
    ["valve", { power: "mains" }, /Power is one of/],
    ["output", { expected: "  " }, /Say what should happen/],
    ["output", { limit: 0 }, /limit/],
    ["circuit", { readings: [] }, /at least the first pin/],
    ["circuit", { readings: [{ pin: "feed" }] }, /a voltage or a lamp/],
    ["circuit", { readings: [{ pin: "feed", voltage: volts(13), lamp: "bright" }] }, /a voltage or a lamp/],
    ["circuit", { readings: [{ pin: "left", voltage: volts(13) }] }, /pin is one of/],
    ["circuit", { battery: volts(240) }, /out of range for voltage/],
    ["chain", { device: "" }, /Name the device/],
    ["chain", { links: { control: volts(12) } }, /Measure the battery with/],
    ["borescope", { ports: [] }, /at least one port/],
    ["borescope", { ports: [{ name: "Port 1", straight: 140 }] }, /above 100 %/],
    ["borescope", { ports: [{ name: "Port 1" }] }, /Grade every port/],
    ["borescope", { pictures: ["../secrets"] }, /SHA-256/],
    [
      "smoke",
      { machine: { ...smokeRun().machine, calibration: { on: "x", pressure: { value: 13, unit: "inH2O" }, points: [] } } },
      /reference hole|A day looks like/,
    ],
  ])("%s %j", (check, change, message) => {
    expect(refusal(check, { ...RECORDS[check], ...change })).toMatch(message);
  });

  it("lists what was read, in its own units", () => {
    for (const check of CHECK_IDS.filter((c) => c !== "look")) {
      const rows = readingsOf(check, RECORDS[check]);
      expect(rows.length, check).toBeGreaterThan(0);
      for (const row of rows) {
        expect(Number.isFinite(row.value), `${check} ${row.reading}`).toBe(true);
        expect(row.unit, `${check} ${row.reading}`).toBeTruthy();
      }
    }
  });
});

describe("every judge", () => {
  const share = fc.double({ min: 0, max: 1, noNaN: true });
  const vacuum = fc.double({ min: 0.1, max: 29, noNaN: true });
  const state = fc.record({ start: vacuum, end: vacuum, seconds: fc.double({ min: 0, max: 600, noNaN: true }) });
  const any: Partial<Record<CheckId, fc.Arbitrary<object>>> = {
    vacuum: fc.record({ value: vacuum, rpm: fc.integer({ min: 300, max: 3000 }) }).map(({ value, rpm }) => ({
      ...good.vacuum,
      rpm,
      vacuum: { value, unit: "inHg", kind: "vacuum" },
    })),
    airflow: fc.record({ maf: share, map: share, rpm: fc.integer({ min: 300, max: 7000 }) }).map(({ maf, map, rpm }) => ({
      ...good.airflow,
      points: [
        {
          state: "wide-open",
          rpm,
          maf: { value: 0.5 + 150 * maf, unit: "g/s" },
          map: { value: 10 + 200 * map, unit: "kPa", kind: "absolute" },
        },
      ],
    })),
    crankcase: fc.double({ min: -90, max: 90, noNaN: true }).map((value) => ({
      ...good.crankcase,
      idle: { value, unit: "hPa", kind: "gauge" },
    })),
    pinch: fc
      .record({ before: vacuum, shut: vacuum, released: vacuum, blankProved: fc.boolean() })
      .map((p) => ({ ...good.pinch, ...p })),
    hold: fc.record({ a: vacuum, b: vacuum, c: vacuum }).map(({ a, b, c }) => ({
      ...good.hold,
      still: [
        [0, a],
        [60, b],
      ],
      wiggled: [
        [0, a],
        [40, c],
      ],
    })),
    valve: fc
      .record({ rest: state, energised: state, rests: fc.constantFrom("closed", "open"), clicked: fc.boolean() })
      .map((v) => ({ ...good.valve, ...v })),
    borescope: fc
      .array(fc.record({ name: fc.constant("Port"), straight: fc.integer({ min: 0, max: 100 }) }), { minLength: 1 })
      .map((ports) => ({ ...good.borescope, ports: ports.slice(0, 32).map((p, i) => ({ ...p, name: `Port ${i}` })) })),
  };

  it.each(Object.entries(any))(
    "of %s answers every record its door takes; void and unsure are honest about it",
    (check, records) => {
      fc.assert(
        fc.property(records, (record) => {
          validate(schemaOf(check as CheckId), record);
          const verdict = judgeCheck(check as CheckId, record, contextOf(check === "chain" ? TWO_BANKS : NATURAL));
          expect(["pass", "fail", "unsure", "void"]).toContain(verdict.outcome);
          expect(verdict.headline).toBeTruthy();
          if (verdict.outcome === "void") {
            expect(verdict.observation).toBeUndefined();
            expect(verdict.zones).toEqual([]);
            expect(verdict.reasons.length).toBeGreaterThan(0);
          }
          if (verdict.outcome === "fail") expect(verdict.observation).toBeTruthy();
          if (verdict.outcome === "unsure") expect(verdict.reasons.length).toBeGreaterThan(0);
          for (const m of verdict.measures) {
            if (m.low !== undefined && m.high !== undefined) expect(m.low).toBeLessThanOrEqual(m.high);
            if (m.limit) expect(m.limitSource).toBeTruthy();
          }
        }),
        { numRuns: 150 },
      );
    },
  );

  it("of a hold grows stricter with what is lost, never laxer (property)", () => {
    const rank = { pass: 0, unsure: 1, fail: 2, void: 3 } as const;
    const outcome = (end: number) =>
      judgeCheck(
        "hold",
        {
          ...good.hold,
          still: [
            [0, 20],
            [60, end],
          ],
          wiggled: [
            [0, 20],
            [60, end],
          ],
        },
        contextOf(NATURAL),
      ).outcome;
    fc.assert(
      fc.property(fc.double({ min: 0, max: 20, noNaN: true }), fc.double({ min: 0, max: 20, noNaN: true }), (a, b) => {
        const [less, more] = [Math.min(a, b), Math.max(a, b)];
        expect(rank[outcome(less)]).toBeGreaterThanOrEqual(rank[outcome(more)]);
      }),
      { numRuns: 100 },
    );
  });
});
