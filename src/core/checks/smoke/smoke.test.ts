import { describe, expect, it } from "vitest";
import { contextOf, NATURAL, smokeRun, TURBO } from "../../core.fixture";
import { orificeFlow } from "../../gas/orifice";
import { fitSettling } from "../../gas/settle";
import { seededNoise } from "../../maths/random";
import { toSi } from "../../units";
import { reachOf, usualSetup } from "../../vehicle";
import { smoke } from ".";
import { type SmokeRun, smokeFields } from "./fields";
import { judgeSmoke } from "./judge";
import { planSmoke } from "./plan";
import { readSmoke, thinned } from "./reading";

const context = contextOf(NATURAL);
const judge = (run: SmokeRun) => judgeSmoke(run, context);
const proof = smokeRun().proof as NonNullable<SmokeRun["proof"]>;

describe("a bound while it is still filling", () => {
  const volume = 0.012;
  /** Ball and gauge of a vessel filled through a regulator of a given resistance, stepped by its own mass balance. */
  function filling(diameter: number, offset: number, noise: ReturnType<typeof seededNoise>): [number, number, number][] {
    const full = 12 / 60_000;
    const set = 3200;
    let pressure = 1;
    const samples: [number, number, number][] = [];
    for (let step = 0; step < 12_000; step++) {
      const inflow = Math.min(full, full * Math.sqrt(Math.max(0, (set - pressure) / (0.05 * set))));
      const speed = Math.sqrt((2 * pressure) / 1.19);
      const out = 0.61 * (Math.PI / 4) * diameter ** 2 * speed;
      pressure = Math.max(1, pressure + ((inflow - out) * 0.005 * 101_325) / volume);
      if (step % 1000 === offset) {
        const read = inflow * 60_000 + noise.uniform(-0.1, 0.1);
        samples.push([(step + 1) * 0.005, Math.max(0, read), Math.max(0, pressure / 249.08891 + noise.uniform(-0.1, 0.1))]);
      }
    }
    return samples;
  }
  const bound = (samples: SmokeRun["samples"], change: Partial<SmokeRun> = {}) =>
    readSmoke(smokeRun(4.5, { samples, ...change }), { volume }).atMost;

  it("is never below the hole, however early it is read (property)", () => {
    const noise = seededNoise(77);
    let said = 0;
    for (let car = 0; car < 60; car++) {
      const diameter = noise.uniform(0.4, 2.4) / 1000;
      const samples = filling(diameter, Math.floor(noise.uniform(0, 1000)), noise);
      for (let n = 2; n <= samples.length; n++) {
        const most = bound(samples.slice(0, n));
        if (most === undefined) continue;
        said++;
        expect(most).toBeGreaterThan(diameter);
      }
    }
    expect(said).toBeGreaterThan(300);
  });
  it("is said from the second reading on, and closes down on the hole as the ball falls", () => {
    const samples: SmokeRun["samples"] = [
      [3, 9, 11],
      [9, 6, 12],
      [15, 5, 12],
    ];
    expect(bound(samples.slice(0, 1))).toBeUndefined();
    const [second, third] = [bound(samples.slice(0, 2)), bound(samples)];
    expect(third).toBeLessThan(second as number);
  });
  it.each<[string, SmokeRun["samples"], Partial<SmokeRun>]>([
    [
      "the ball stands at its top: more may pass",
      [
        [3, 12, 9],
        [9, 12, 9],
      ],
      {},
    ],
    [
      "the gauge falls: the system feeds the leak too",
      [
        [3, 3, 12],
        [9, 3, 9],
      ],
      {},
    ],
    [
      "the gauge fell once and stands lower",
      [
        [3, 3, 12],
        [6, 3, 8],
        [9, 3, 8],
      ],
      {},
    ],
    [
      "there is no pressure behind the flow",
      [
        [3, 3, 0],
        [9, 3, 0],
      ],
      {},
    ],
    [
      "the ball stands above its calibrated heights",
      [
        [3, 9, 12],
        [9, 9, 12],
      ],
      {
        machine: {
          ...smokeRun().machine,
          calibration: {
            on: "2026-03-02",
            pressure: { value: 13, unit: "inH2O", kind: "gauge" },
            points: [
              { diameter: { value: 0.5, unit: "mm" }, height: 2 },
              { diameter: { value: 1, unit: "mm" }, height: 7 },
            ],
          },
        },
      },
    ],
  ])("is not said where %s", (_why, samples, change) => {
    expect(bound(samples, change)).toBeUndefined();
  });
});

describe("void traps", () => {
  const { proof: _, ...unproved } = smokeRun();
  it.each<[string, SmokeRun, RegExp]>([
    ["machine never proved", unproved, /never proved/],
    [
      "proved below 85 % of its rating",
      smokeRun(4.5, { proof: { ...proof, pressure: { value: 10.9, unit: "inH2O", kind: "gauge" } } }),
      /only 84 % of its rated pressure/,
    ],
    ["ball off the bottom at proof", smokeRun(4.5, { proof: { ...proof, ballAtBottom: false } }), /machine or its hose leaks/],
    ["no smoke at proof", smokeRun(4.5, { proof: { ...proof, smokeSeen: false } }), /no smoke came from the open hose/],
    ["heater timed out during the run", smokeRun(4.5, { heaterOnAt: -250 }), /timed out 46 s before the run ended/],
    ["a plug came off", smokeRun(4.5, { cameUndone: ["tailpipe"] }), /Tailpipe came undone, dropped out or wept/],
    ["a clamp was touched before", smokeRun(4.5, { touchedBefore: ["pcv-hose"] }), /PCV hose was touched before/],
    ["an end left open", smokeRun(4.5, { blocked: [] }), /Tailpipe was left open/],
    ["adapter leaks", smokeRun(4.5, { adapterLeaks: true }), /adapter leaked/],
    ["smoke at a plug", smokeRun(4.5, { seen: [{ joint: "tailpipe", at: 60 }] }), /came past what seals Tailpipe/],
    ["draught or glare", smokeRun(4.5, { draughtOrGlare: true }), /draught or bright daylight/],
    [
      "still filling",
      smokeRun(4.5, { samples: smokeRun().samples.slice(0, 4), arrivals: [], endedAt: 20 }),
      /still filling: about \d+ s/,
    ],
    ["too few readings", smokeRun(4.5, { samples: smokeRun().samples.slice(0, 2) }), /fewer than three readings/],
    [
      "flow fell to zero at once",
      smokeRun(0, {
        samples: [
          [1, 0, 12.4],
          [7, 0, 12.6],
          [13, 0, 12.6],
          [19, 0, 12.6],
        ],
      }),
      /the port is not open/,
    ],
  ])("%s", (_name, run, reason) => {
    const verdict = judge(run);
    expect(verdict.outcome).toBe("void");
    expect(verdict.reasons[0]).toMatch(reason);
    expect(verdict).toMatchObject({ measures: [], zones: [] });
    expect(verdict.observation).toBeUndefined();
  });

  it("lets a proof at exactly its limit pass", () => {
    const pressure = { value: 0.85 * 13 + 1e-9, unit: "inH2O", kind: "gauge" } as const;
    expect(judge(smokeRun(4.5, { proof: { ...proof, pressure } })).outcome).toBe("pass");
  });
});

describe("size from settled flow and pressure", () => {
  it.each([1e-3, 1.5e-3, 2e-3])("finds a hole of %f m within 3 %%", (diameter) => {
    const ambient = 101325;
    const pressure = 12.5 * 249.0889;
    const { massFlow } = orificeFlow({ upstream: ambient + pressure, downstream: ambient, temperature: 293.15, diameter });
    // The ball floats in gas a little denser than at standard state: its scale reads low by the root.
    const scale = (massFlow / 1.2041) * 6e4 * Math.sqrt(ambient / (ambient + pressure));
    const run = smokeRun(scale, {
      samples: smokeRun(scale).samples.map(([t, , p], i) => [t, scale + (12 - scale) * Math.exp(-i / 1.6), p]),
    });
    const reading = readSmoke(run, reachOf(context.layout, run));
    expect(reading.flow?.settled).toBe(true);
    expect((reading.hole?.diameter as number) / diameter).toBeCloseTo(1, 1.5);
    expect(reading.hole?.low).toBeLessThan(diameter);
    expect(reading.hole?.high).toBeGreaterThan(diameter);
  });
});

describe("verdict", () => {
  it("is tight where smoke was shown, and nowhere else", () => {
    const verdict = judge(smokeRun());
    expect(verdict).toMatchObject({ outcome: "pass", observation: "smoke-none-outside" });
    const state = (zone: string) => verdict.zones.find((z) => z.zone === zone)?.state;
    expect(["metered-duct", "manifold", "crankcase", "breather"].map(state)).toEqual(Array(4).fill("tight"));
    expect(state("booster-branch")).toBe("not-reached");
    expect(state("filter-box")).toBe("not-reached");
    expect(verdict.zones.find((z) => z.zone === "tail")?.why).toMatch(/behind the engine's valves/);
    expect(verdict.reasons.join()).toMatch(/MAF was hidden by the hose: untested/);
  });

  it("names what is untested for want of arrival", () => {
    const verdict = judge(smokeRun(4.5, { arrivals: [{ zone: "manifold", at: 30 }] }));
    expect(verdict.headline).toBe("Tight as far as smoke was shown; Crankcase, Breather hose untested");
    expect(verdict.zones.find((z) => z.zone === "crankcase")).toMatchObject({ state: "not-reached" });
  });

  it("is not sure where arrivals were clocked one by one faster than anybody sees them; said at one moment, they count", () => {
    const clocked = (...at: number[]) =>
      judge(
        smokeRun(4.5, {
          arrivals: (["manifold", "crankcase", "breather"] as const).map((zone, i) => ({ zone, at: at[i] as number })),
        }),
      );
    expect(clocked(40, 40.3, 40.6).outcome).toBe("unsure");
    expect(clocked(40.6, 40, 40.3).reasons.join()).toMatch(/3 places one by one within a second.*open each again/);
    expect(clocked(40, 41, 42).outcome).toBe("pass");
    // One key for all of them is one word on all of them, whenever it is given.
    expect(clocked(40, 40, 40).outcome).toBe("pass");
    expect(clocked(30, 40, 40.4).outcome).toBe("pass");
    // A leak is a leak however fast the rest was clocked.
    expect(judge(smokeRun(4.5, { arrivals: [], seen: [{ joint: "pcv-hose", at: 40 }] })).outcome).toBe("fail");
  });

  it("is leaking where smoke was seen, settled or not", () => {
    const seen = [{ joint: "pcv-hose", at: 40 }];
    const verdict = judge(smokeRun(9, { seen, noSmokeOutside: false }));
    expect(verdict).toMatchObject({ outcome: "fail", headline: "Smoke at PCV hose", observation: "smoke-at:pcv-hose" });
    expect(verdict.zones.find((z) => z.zone === "manifold")).toMatchObject({ state: "leaking", joint: "pcv-hose" });
    expect(verdict.reasons.join()).not.toMatch(/ball lay at the bottom/);
    expect(judge(smokeRun(0, { seen, noSmokeOutside: false })).reasons.join()).toMatch(/ball lay at the bottom.*ball sticks/);
    const cut = { samples: smokeRun(9).samples.slice(0, 4), arrivals: [], endedAt: 20 };
    const early = judge(smokeRun(9, { ...cut, seen: [{ joint: "pcv-hose", at: 15 }], noSmokeOutside: false }));
    expect(early.outcome).toBe("fail");
    expect(early.measures).toEqual([]);
  });

  it("takes no smoke where some passes by design for a leak, nor lets it hide one", () => {
    const bypass = contextOf({ ...NATURAL, fitted: [...NATURAL.fitted, "idle-air"] });
    const only = judgeSmoke(smokeRun(4.5, { seen: [{ joint: "idle-air", at: 60 }], noSmokeOutside: false }), bypass);
    expect(only).toMatchObject({ outcome: "unsure", headline: expect.stringContaining("Idle air control valve"), zones: [] });
    expect(only.observation).toBeUndefined();
    expect(only.reasons.join()).toMatch(/plug it and compare the ball/);
    const both = smokeRun(4.5, {
      seen: [
        { joint: "idle-air", at: 60 },
        { joint: "pcv-hose", at: 70 },
      ],
    });
    expect(judgeSmoke(both, bypass)).toMatchObject({
      outcome: "fail",
      headline: "Smoke at PCV hose",
      observation: "smoke-at:pcv-hose",
    });
    const { proof: _, ...unproved } = both;
    expect(judgeSmoke(unproved, bypass)).toMatchObject({ tested: ["pcv-hose"] });
    expect(judgeSmoke({ ...unproved, seen: both.seen.slice(0, 1) }, bypass).outcome).toBe("void");
  });

  it("keeps what was seen before a plug let smoke by", () => {
    const run = smokeRun(4.5, {
      seen: [
        { joint: "pcv-hose", at: 50 },
        { joint: "tailpipe", at: 60 },
      ],
    });
    expect(judge(run)).toMatchObject({ outcome: "fail", tested: ["pcv-hose"], observation: "smoke-at:pcv-hose" });
  });

  it("reads a ball held high with no smoke outside as an inside path", () => {
    const verdict = judge(smokeRun(10.5));
    expect(verdict).toMatchObject({ outcome: "fail", observation: "smoke-inside-path" });
    expect(verdict.reasons[0]).toMatch(/EGR valve, crankcase breather/);
  });

  it("is not sure while nobody looked or the instrument stood off zero", () => {
    expect(judge(smokeRun(4.5, { noSmokeOutside: false })).headline).toMatch(/nobody has looked/);
    expect(judge(smokeRun(4.5, { zeroed: false })).headline).toMatch(/not at zero/);
  });

  it("carries value, unit and interval of what it measured", () => {
    for (const m of judge(smokeRun()).measures.filter((x) => !x.name.startsWith("Smallest"))) {
      expect(m.low).toBeLessThanOrEqual(m.value.value);
      expect(m.high).toBeGreaterThanOrEqual(m.value.value);
    }
    expect(judge(smokeRun()).measures.map((m) => m.value.unit)).toEqual(["L/min", "inH2O", "mm", "mm"]);
  });

  it("refuses an entry this vehicle has not", () => {
    expect(() => judge(smokeRun(4.5, { entry: "nowhere" }))).toThrow(/no entry "nowhere"/);
  });
});

describe("plan", () => {
  const machine = { id: "m", ...smokeRun().machine, kind: "low-pressure" as const, service: [] };
  it("proves the machine, seals the open ends, lists what comes off and starts its clocks", () => {
    const turbo = contextOf(TURBO);
    const plan = planSmoke(turbo, { ...usualSetup(turbo.layout, "hot-pipe-clamp"), machine });
    const text = plan.steps.map((s) => s.text).join("\n");
    expect(text.indexOf("clamp the hose")).toBeGreaterThan(0);
    expect(text.indexOf("clamp the hose")).toBeLessThan(text.indexOf("Enter at Hot pipe clamp"));
    expect(plan.displaces.map((d) => d.what)).toEqual(["hot pipe off the compressor", "plug at Tailpipe", "Throttle held open"]);
    expect(plan.clocks.map((c) => c.seconds)[0]).toBe(300);
    expect(plan.cautions).toContain("smoke-vapour");
  });

  it("asks to seal what would let the fill escape", () => {
    const plan = planSmoke(context, { entry: "air-meter", blocked: [], heldOpen: ["throttle"], machine });
    expect(plan.steps.some((s) => /^Seal Tailpipe/.test(s.text))).toBe(true);
  });

  it("says what a pass and a fail are called", () => {
    expect(smoke.words).toEqual({ pass: "Tight", fail: "Leaking" });
  });
});

describe("the door", () => {
  const says = (run: object) => {
    try {
      smokeFields.schema.validateSync(run, { strict: true });
      return "taken";
    } catch (error) {
      return (error as Error).message;
    }
  };
  it.each([
    [{}, /^taken$/],
    [
      {
        samples: [
          [5, 3, 3],
          [1, 3, 3],
        ],
      },
      /must rise in time/,
    ],
    [{ samples: [[1, -3, 3]] }, /Flow cannot be negative/],
    [{ samples: [[1, Number.POSITIVE_INFINITY, 3]] }, /Flow is a number/],
    [{ samples: [[1, "4.5", 3]] }, /Flow is a number/],
    [{ samples: [[1, 4.5]] }, /list of 3 numbers/],
    [{ samples: [null] }, /list of 3 numbers/],
    [{ samples: [{ 0: 1, 1: 4.5, 2: 3, length: 3 }] }, /list of 3 numbers/],
    [{ samples: [[1, 4.5, 2e5]] }, /Pressure cannot be above 100000/],
    [{ samples: [[-7201, 4.5, 3]] }, /The time cannot be below -7200/],
    [{ samples: Array.from({ length: 20_001 }, (_, i) => [i / 10, 4, 3]) }, /samples/],
    [{ samples: undefined }, /samples/],
    [{ ambient: { value: 13, unit: "inH2O", kind: "gauge" } }, /absolute, not gauge/],
    [{ proof: { ...proof, pressure: { value: 40, unit: "psi" } } }, /out of range for smoke pressure/],
    [{ units: { flow: "L/min", pressure: "mm" } }, /unit of pressure is one of Pa/],
    [{ surprise: true }, /unspecified|unknown/i],
  ])("%j", (change, message) => {
    expect(says({ ...smokeRun(), ...change })).toMatch(message);
  });

  it("takes what the plan's units give", () => {
    expect(toSi({ value: 12, unit: "L/min" })).toBeCloseTo(2e-4, 9);
  });
});

describe("a long series", () => {
  it("says thinned what it says whole (property)", () => {
    const noise = seededNoise(9);
    for (let run = 0; run < 10; run++) {
      const [level, rush, tau] = [noise.uniform(1, 8), noise.uniform(1, 6), noise.uniform(4, 60)];
      const end = tau * noise.uniform(2, 40);
      const times = Array.from({ length: 500 }, (_, i) => (i * end) / 500);
      const values = times.map((t) => level + rush * Math.exp(-t / tau) + 0.05 * noise.normal());
      const [whole, thin] = [fitSettling(times, values, tau, 0.1), fitSettling(...thinned(times, values), tau, 0.1)];
      expect(Math.abs(thin.value - whole.value)).toBeLessThan(0.05 + (whole.high - whole.low) / 2);
      if (whole.settled && end > 6 * tau) expect(thin.settled).toBe(true);
      if (thin.settled) expect(Math.abs(thin.value - level)).toBeLessThan(0.3);
    }
  });
  it("keeps a short one as it is, and every reading of a long one in some mean", () => {
    const short = Array.from({ length: 60 }, (_, i) => i);
    expect(thinned(short, short)[0]).toEqual(short);
    for (const n of [81, 100, 333, 20_000]) {
      const all = Array.from({ length: n }, (_, i) => i);
      const [means] = thinned(all, all);
      expect(means.every((m, i) => i === 0 || m > (means[i - 1] as number))).toBe(true);
      expect(means[0]).toBeLessThan(3);
      expect(means.at(-1)).toBeGreaterThan(n * 0.98 - 1);
    }
  });
});
