import { describe, expect, it } from "vitest";
import { contextOf, DIESEL, NATURAL, smokeRun, TURBO, VAPOUR } from "../core.fixture";
import { holeOfLoss } from "../gas/hold";
import { usualSetup, type VehicleFacts } from "../vehicle";
import type { CheckId } from ".";
import { capRecord, decayRecord, evapSmokeRun, tankSensorRecord, ventPathRecord } from "./evap.fixture";
import { CHECKS, judgeCheck } from "./index";
import {
  airflow,
  borescope,
  chain,
  circuit,
  crankcase,
  exhaustGas,
  hold,
  output,
  pinch,
  pressure,
  probe,
  survey,
  vacuum,
  valve,
} from "./records.fixture";
import type { SmokeRun } from "./smoke";
import type { Verdict } from "./verdict";

const judge = (check: CheckId, record: object, vehicle = NATURAL): Verdict => judgeCheck(check, record, contextOf(vehicle));
const says = (verdict: Verdict) => `${verdict.outcome}: ${verdict.reasons.join("; ")}`;
const flat = (flow: number, pressure: number, seconds = 96): SmokeRun["samples"] =>
  Array.from({ length: 16 }, (_, i) => [1 + (i * (seconds - 6)) / 15, flow, pressure] as const);
/** The charge side of a turbo by itself: no cylinders in the fill. */
const sealed = (change: Partial<SmokeRun>): SmokeRun => {
  const { layout } = contextOf(TURBO);
  const setup = usualSetup(layout, "hot-pipe-clamp");
  return smokeRun(0, {
    ...setup,
    heldOpen: [],
    arrivals: [
      { zone: "cooler", at: 30 },
      { zone: "cold-pipe", at: 40 },
    ],
    ...change,
  });
};

describe("readings that cannot be", () => {
  it.each([
    ["a dead pump", "smoke", smokeRun(4, { samples: flat(0.1, 0.1) }), /nothing was being pushed/],
    ["a ball above the machine", "smoke", smokeRun(4, { samples: flat(40, 6) }), /more than this machine can push/],
    ["a gauge above the machine", "smoke", smokeRun(4, { samples: flat(4, 40) }), /more pressure than this machine makes/],
    [
      "an arrival after the end",
      "smoke",
      smokeRun(4, { arrivals: [{ zone: "manifold", at: 400 }] }),
      /outside the run's own time/,
    ],
    ["readings after the end", "smoke", smokeRun(4, { endedAt: 30, arrivals: [] }), /go on after the run had ended/],
    [
      "a hold pumped up in between",
      "hold",
      {
        ...hold,
        still: [
          [0, 20],
          [30, 17],
          [31, 20],
          [60, 19.8],
        ],
      },
      /can only fall/,
    ],
    [
      "a hold beyond the atmosphere",
      "hold",
      {
        ...hold,
        still: [
          [0, 34],
          [60, 33.9],
        ],
      },
      /more vacuum than the air outside/,
    ],
    ["a valve that gains", "valve", { ...valve, rest: { start: 10, end: 14, seconds: 60 } }, /rose by itself/],
    ["a valve read the wrong way round", "valve", { ...valve, rests: "open" }, /rests closed on this car/],
    [
      "more vacuum than air",
      "vacuum",
      { ...vacuum, vacuum: { value: 29, unit: "inHg" }, ambient: { value: 700, unit: "hPa" } },
      /no engine sucks that much/,
    ],
    [
      "more volts than the battery",
      "circuit",
      { ...circuit, readings: circuit.readings.map((r) => (r.voltage ? { ...r, voltage: { value: 19, unit: "V" } } : r)) },
      /more than the battery/,
    ],
    [
      "a manifold above ambient, unblown",
      "airflow",
      { ...airflow, points: airflow.points.map((p) => ({ ...p, map: { value: 140, unit: "kPa" } })) },
      /without a blower/,
    ],
    [
      "nothing to recover",
      "pinch",
      { ...pinch, reads: "flow", unit: "L/min", before: 0, shut: 0, released: 0 },
      /stood at nothing before/,
    ],
  ] as const)("%s", (_name, check, record, reason) => {
    const verdict = judge(check, record);
    expect(says(verdict)).toMatch(/^void/);
    expect(says(verdict)).toMatch(reason);
    expect(verdict.observation).toBeUndefined();
  });

  it.each([
    ["a cap that gains", "cap", capRecord({ start: 20, end: 26 }), /pressure rose on the tester/],
    [
      "no flow, some back pressure",
      "vent-path",
      {
        ...ventPathRecord(),
        parts: ventPathRecord().parts.map((p) => ({ ...p, flow: { value: 0, unit: "L/min" as const } })),
      },
      /no flow went into/,
    ],
  ] as const)("%s", (_name, check, record, reason) => {
    const verdict = judge(check, record, VAPOUR);
    expect(says(verdict)).toMatch(/^void/);
    expect(says(verdict)).toMatch(reason);
  });

  it("takes no first reading that came late for a port that was open", () => {
    const late = sealed({ samples: flat(0, 12.6).map(([t, q, p]) => [t + 5, q, p] as const), arrivals: [], endedAt: 120 });
    expect(says(judge("smoke", late, TURBO))).toMatch(/^void.*a port that was never open looks just like a tight circuit/);
  });

  it("looks at every place once", () => {
    const items = [
      { id: "pcv-hose", state: "fine" },
      { id: "pcv-hose", state: "found" },
    ];
    expect(() => CHECKS.look.fields.schema.validateSync({ items }, { strict: true })).toThrow(/looked at once/);
  });
});

describe("a pass could have failed", () => {
  it("says the smallest hole it could have seen", () => {
    const verdict = judge("smoke", smokeRun());
    expect(verdict.outcome).toBe("pass");
    const seen = verdict.measures.find((m) => m.name.startsWith("Smallest hole"));
    expect(seen?.value.value).toBeGreaterThan(0.2);
    expect(seen?.value.value).toBeLessThan(1);
    expect(seen?.limit).toMatch(/1.0 mm must be caught/);
  });
  it("is not sure where the open valves leave too little pressure, or the ball is too coarse", () => {
    expect(judge("smoke", smokeRun(7, { samples: flat(11.5, 0.5) })).outcome).not.toBe("pass");
    const coarse = sealed({
      samples: smokeRun(0).samples,
      machine: { ...smokeRun().machine, division: { value: 20, unit: "L/min" } },
    });
    expect(says(judge("smoke", coarse, TURBO))).toMatch(/^unsure.*this tube cannot show it/);
  });
  it("never passes a steady flow that nothing explains", () => {
    for (const flow of [0.6, 1, 2, 3])
      expect(judge("smoke", sealed({ samples: smokeRun(flow).samples }), TURBO).outcome).toBe("unsure");
    // 9.6 L/min at 12.4 inH2O is a hole above 2 mm: larger than the charge side may have.
    expect(judge("smoke", sealed({ samples: smokeRun(9.6).samples }), TURBO)).toMatchObject({
      outcome: "fail",
      observation: "smoke-inside-path",
    });
    expect(judge("smoke", sealed({ samples: smokeRun(0).samples }), TURBO).outcome).toBe("pass");
  });
  it("words a measured hole inside the limit as that, and lets the search go on", () => {
    const verdict = judge("evap-smoke", evapSmokeRun(0.28), VAPOUR);
    expect(verdict).toMatchObject({ outcome: "pass", word: "Within the limit" });
    expect(verdict.observation).toBeUndefined();
    expect(verdict.zones.map((z) => z.state)).not.toContain("tight");
  });
  it("takes no size from a ball beyond its calibration", () => {
    const calibration = {
      on: "2026-03-01",
      pressure: { value: 12.5, unit: "inH2O" as const },
      points: [{ height: 0.3, diameter: { value: 0.3, unit: "mm" as const } }],
    };
    const run = evapSmokeRun(6, { machine: { ...smokeRun().machine, calibration } });
    expect(judge("evap-smoke", run, VAPOUR).outcome).not.toBe("pass");
    expect(judge("evap-smoke", run, VAPOUR).measures.map((m) => m.name)).not.toContain(
      "All leaks as one sharp-edged hole (Cd 0.61)",
    );
  });
  it("proves nothing where nobody read the pressure with the hose clamped", () => {
    const { pressure, ...proof } = smokeRun().proof as NonNullable<SmokeRun["proof"]>;
    expect(judge("smoke", smokeRun(0, { proof }))).toMatchObject({ outcome: "void" });
  });

  it("lets a plain smoke maker find and not clear", () => {
    const machine = { ...smokeRun().machine, plain: true as const };
    const proof = { ballAtBottom: false, smokeSeen: true };
    const plain = (change: Partial<SmokeRun>) => smokeRun(0, { machine, proof, samples: [], ...change });
    expect(judge("smoke", plain({}))).toMatchObject({ outcome: "unsure", headline: expect.stringMatching(/clears nothing/) });
    expect(judge("smoke", plain({ seen: [{ joint: "pcv-hose", at: 40 }], noSmokeOutside: false }))).toMatchObject({
      outcome: "fail",
      observation: "smoke-at:pcv-hose",
    });
    expect(judge("evap-smoke", evapSmokeRun(0, { machine, samples: [] }), VAPOUR).outcome).toBe("unsure");
  });
});

describe("a loss is a hole where the gas space is known", () => {
  it("as the orifice has it: 5 % of 20 inHg in 60 s on 30 mL is 0.013 mm", () => {
    const start = 20 * 3386.389;
    const d = holeOfLoss({
      volume: 30e-6,
      start: 101325 - start,
      end: 101325 - 0.95 * start,
      seconds: 60,
      ambient: 101325,
      temperature: 293.15,
    });
    expect(d * 1000).toBeCloseTo(0.013, 3);
    expect(holeOfLoss({ volume: 30e-6, start: 9e4, end: 8e4, seconds: 60, ambient: 101325, temperature: 293 })).toBe(0);
  });
  it("weeping far below what set the code is a verdict of its own; without the gas space it is faulty", () => {
    const weeps = {
      ...hold,
      still: [
        [0, 20],
        [60, 17],
      ] as const,
      wiggled: [
        [0, 20],
        [60, 17],
      ] as const,
    };
    expect(judge("hold", weeps).outcome).toBe("fail");
    const known = judge("hold", { ...weeps, volume: { value: 30, unit: "mL" } });
    expect(known).toMatchObject({
      outcome: "pass",
      word: "Within the limit",
      headline: expect.stringMatching(/far below what set this code/),
    });
    expect(judge("hold", { ...weeps, volume: { value: 15, unit: "L" } }).outcome).toBe("fail");
    const seat = { ...valve, rest: { start: 18, end: 15, seconds: 60 }, volume: { value: 50, unit: "mL" } };
    expect(judge("valve", seat)).toMatchObject({ outcome: "pass", word: "Within the limit" });
  });
  it("a coarse gauge is watched longer instead of refused", () => {
    const coarse = { ...hold.instrument, division: { value: 0.5, unit: "inHg" as const } };
    const watched = (seconds: number) =>
      judge("hold", {
        ...hold,
        instrument: coarse,
        still: [
          [0, 20],
          [seconds, 20],
        ],
        wiggled: [
          [0, 20],
          [seconds, 20],
        ],
      });
    expect(says(watched(60))).toMatch(/^unsure.*Watch it for \d+ s/);
    expect(watched(300).outcome).toBe("pass");
  });
  it("an empty system is a gross leak, and evaporating fuel hides a small one", () => {
    const gone = decayRecord(0, {
      samples: [
        [0, 10],
        [5, 0.4],
        [10, 0.1],
        [15, 0],
        [20, 0],
      ],
    });
    expect(judge("decay", gone, VAPOUR)).toMatchObject({
      outcome: "fail",
      headline: expect.stringMatching(/^Gone within 5 s: a gross leak/),
    });
    const rising = decayRecord(0, { vapourRise: { start: 0, end: 3, seconds: 60 } }, 0.508);
    expect(says(judge("decay", rising, VAPOUR))).toMatch(/^unsure.*evaporating or cooling fuel/);
  });
});

describe("what one cycle misses", () => {
  const cycles = (change: object) =>
    judge("valve", { ...valve, cycles: [{ temperature: "hot", commanded: 10, shut: 10, passed: 10, released: 10, ...change }] });
  it("shows in ten", () => {
    expect(cycles({}).outcome).toBe("pass");
    expect(cycles({ shut: 9 })).toMatchObject({
      outcome: "fail",
      headline: expect.stringMatching(/shut only 9 of 10 times, hot/),
    });
    expect(cycles({ released: 8 }).outcome).toBe("fail");
    expect(() =>
      CHECKS.valve.fields.schema.validateSync(
        { ...valve, cycles: [{ temperature: "hot", commanded: 3, shut: 4, passed: 3, released: 3 }] },
        { strict: true },
      ),
    ).toThrow(/more often than it was commanded/);
  });
  it("a solenoid that does not let go has a third port that is blocked", () => {
    expect(judge("valve", { ...valve, vents: false })).toMatchObject({
      outcome: "fail",
      headline: expect.stringMatching(/vent port/),
    });
  });
  it("a click that nobody wrote down is not said to be missing", () => {
    const { clicked: _, ...unsaid } = valve;
    expect(judge("valve", { ...unsaid, rest: { start: 18, end: 9, seconds: 60 } }).reasons.join()).toMatch(/not written down/);
  });
});

describe("a tank sensor's slope", () => {
  it("is not shown by no pressure at all", () => {
    for (const value of [0, 0.01]) {
      const record = tankSensorRecord({ second: { pressure: { value, unit: "kPa" }, signal: { value: 1.5, unit: "V" } } });
      expect(judge("tank-sensor", record, VAPOUR).outcome).toBe("unsure");
    }
  });
});

describe("a place that a check says nothing of", () => {
  it.each<[CheckId, object, string]>([
    ["circuit", { ...circuit, joint: "booster-check-valve" }, "booster check valve"],
    ["valve", { ...valve, joint: "pcv-valve" }, "PCV valve"],
    ["hold", { ...hold, joint: "manifold-gasket" }, "manifold gasket"],
    ["output", { ...output, joint: "manifold-gasket" }, "manifold gasket"],
    ["pinch", { ...pinch, joint: "exhaust-gasket" }, "gasket"],
    ["borescope", { ...borescope, joint: "oil-cap" }, "oil"],
  ])("%s: is void there", (check, record, name) => {
    expect(judge(check, record)).toMatchObject({ outcome: "void", headline: expect.stringContaining(name) });
  });
});

describe("a small gas space does not excuse", () => {
  const run = (end: number, seconds = 60) => [[0, 20] as const, [seconds, end] as const];
  const held = { ...hold, still: run(17), wiggled: run(17), volume: { value: 5, unit: "mL" } };
  const valveHeld = { ...valve, rest: { start: 18, end: 14, seconds: 60 }, volume: { value: 5, unit: "mL" } };
  it("holds as they are weep within the limit: what follows differs in one thing each", () => {
    expect(judge("hold", held)).toMatchObject({ outcome: "pass", word: "Within the limit" });
    expect(judge("valve", valveHeld)).toMatchObject({ outcome: "pass", word: "Within the limit" });
  });
  it.each<[string, CheckId, object, string]>([
    ["a part found empty", "hold", { ...held, still: run(0) }, "fail"],
    ["a part that ran empty under the wiggle", "hold", { ...held, wiggled: run(0, 5) }, "fail"],
    ["a lever that is stuck", "hold", { ...held, moved: false }, "fail"],
    ["no wiggle", "hold", { ...held, wiggled: [] }, "unsure"],
    ["too short a watch", "hold", { ...held, still: run(19.7, 5), wiggled: run(19.7, 5) }, "unsure"],
    ["a valve found empty", "valve", { ...valveHeld, rest: { start: 18, end: 0, seconds: 60 } }, "fail"],
    ["a valve that does not open", "valve", { ...valveHeld, energised: { start: 18, end: 17, seconds: 5 } }, "fail"],
    [
      "a gauge off its zero",
      "valve",
      { ...valveHeld, instrument: { ...valve.instrument, zero: { value: 2, unit: "inHg" } } },
      "unsure",
    ],
  ])("%s", (_name, check, record, outcome) => {
    expect(judge(check, record).outcome).toBe(outcome);
  });
});

describe("a tap at a place that the engine does not suck at", () => {
  it("names nothing, however it reacts", () => {
    const typed = { trimBefore: 12, trimAfter: -4, rpmBefore: 720, rpmAfter: 900 };
    const tapped = (joint: string) => judge("probe", { ...probe({}), taps: [{ joint, typed }] });
    expect(tapped("manifold-gasket")).toMatchObject({ outcome: "fail" });
    for (const joint of ["exhaust-gasket", "nowhere"]) expect(tapped(joint)).toMatchObject({ outcome: "void" });
  });
});

describe("readings that contradict each other, or what they were taken of", () => {
  const inHg = (value: number) => ({ value, unit: "inHg", kind: "vacuum" }) as const;
  const volts = (value: number) => ({ value, unit: "V" }) as const;
  const bar = (value: number) => ({ value, unit: "bar", kind: "gauge" }) as const;
  const gas = (change: object) => ({
    ...exhaustGas,
    idle: { ...exhaustGas.idle, ...change },
    raised: { ...exhaustGas.raised, ...change },
  });
  it.each<[string, CheckId, object, VehicleFacts, "void" | "unsure", RegExp]>([
    ["26 inHg at sea level", "vacuum", { ...vacuum, vacuum: inHg(26) }, NATURAL, "unsure", /above its band/],
    [
      "19 inHg at 830 hPa",
      "vacuum",
      { ...vacuum, vacuum: inHg(19), ambient: { value: 830, unit: "hPa", kind: "absolute" } },
      NATURAL,
      "unsure",
      /above its band/,
    ],
    ["a needle a hair below the band", "vacuum", { ...vacuum, vacuum: inHg(16.95) }, NATURAL, "unsure", /within one division/],
    [
      "60 kPa in the manifold wide open, and a healthy meter",
      "airflow",
      {
        ...airflow,
        points: airflow.points.map((p) =>
          p.state === "wide-open" ? { ...p, map: { value: 60, unit: "kPa", kind: "absolute" } } : p,
        ),
      },
      NATURAL,
      "void",
      /contradict/,
    ],
    [
      "an idle at 2400",
      "airflow",
      { ...airflow, points: airflow.points.map((p) => (p.state === "idle" ? { ...p, rpm: 2400 } : p)) },
      NATURAL,
      "void",
      /no idle/,
    ],
    ["a crankcase's idle at 2400", "crankcase", { ...crankcase, rpm: 2400 }, NATURAL, "void", /no idle/],
    [
      "more out of a solenoid than in",
      "chain",
      { ...chain, links: { ...chain.links, outlet: inHg(22) } },
      NATURAL,
      "void",
      /comes out/,
    ],
    [
      "control above battery",
      "chain",
      { ...chain, links: { ...chain.links, control: volts(16) } },
      NATURAL,
      "void",
      /than the battery/,
    ],
    ["a supply below the test", "pressure-test", { ...pressure, supply: bar(0.5) }, TURBO, "void", /supply stands at/],
    [
      "a survey that swings by 6 %",
      "trims",
      survey({ banks: [{ short: 0.5, long: 0, scatter: 6 }] }),
      NATURAL,
      "unsure",
      /swings/,
    ],
    ["a valve that takes 25 s", "output", { ...output, seenAfter: 25 }, NATURAL, "unsure", /within seconds/],
    [
      "a driver's foot in a typed tap",
      "probe",
      {
        agent: "gas",
        source: { kind: "typed" },
        closedLoop: true,
        taps: [{ joint: "manifold-gasket", typed: { trimBefore: 12, trimAfter: 11, rpmBefore: 740, rpmAfter: 1400 } }],
      },
      NATURAL,
      "void",
      /the driver did it/,
    ],
    ["a diesel probed", "probe", probe(), DIESEL, "void", /no trims/],
    [
      "a hold wiggled at 4 inHg",
      "hold",
      {
        ...hold,
        wiggled: [
          [0, 4],
          [40, 3.98],
        ],
      },
      NATURAL,
      "unsure",
      /too little vacuum hides a leak/,
    ],
    ["CO₂ 14.9 beside O₂ 14", "exhaust-gas", gas({ co2: 14.9, o2: 10 }), NATURAL, "void", /oxygen/],
    ["CO₂ 8 beside O₂ 0.15", "exhaust-gas", gas({ co2: 8 }), NATURAL, "void", /carbon is missing/],
    ["CO₂ 18", "exhaust-gas", gas({ co2: 18 }), NATURAL, "void", /more carbon dioxide/],
    [
      "the ECU's λ at 1.12 beside good gases",
      "exhaust-gas",
      gas({ ecuLambda: 1.12 }),
      NATURAL,
      "unsure",
      /one of the two is wrong/,
    ],
    [
      "a tank smoked in the frost",
      "evap-smoke",
      evapSmokeRun(0, { temperature: { value: -6, unit: "°C" } }),
      VAPOUR,
      "unsure",
      /°C/,
    ],
    ["a decay in the heat", "decay", decayRecord(0.2, { temperature: { value: 44, unit: "°C" } }), VAPOUR, "unsure", /°C/],
  ])("%s: said, and settled by nothing", (_name, check, record, vehicle, outcome, reason) => {
    const verdict = judge(check, record, vehicle);
    expect(`${verdict.outcome}: ${verdict.headline}; ${verdict.reasons.join("; ")}`).toMatch(
      new RegExp(`^${outcome}.*${reason.source}`),
    );
  });

  it("are honest where an engine burns richly, leanly, or misfires", () => {
    for (const change of [
      { co: 3.5, co2: 12.3, o2: 0.2, hc: 200 },
      { co: 0.1, co2: 14.2, o2: 2, hc: 40 },
      { co: 1.2, co2: 11.5, o2: 3.2, hc: 2200 },
      { co: 0.02, co2: 13.2, o2: 3.3, hc: 10 },
    ])
      expect(judge("exhaust-gas", gas(change)).outcome).not.toBe("void");
    expect(judge("vacuum", { ...vacuum, vacuum: inHg(22.4) }).outcome).toBe("pass");
    expect(judge("vacuum", { ...vacuum, vacuum: inHg(15.5) }).outcome).toBe("fail");
  });
});
