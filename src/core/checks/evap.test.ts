import { describe, expect, it } from "vitest";
import { contextOf, SEALED_NECK, VAPOUR } from "../core.fixture";
import { orificeFlow } from "../gas/orifice";
import { DEFAULT_SHOP } from "../shop/settings";
import { entriesFor, layoutOf, reachOf, requiredLeakOf, usualSetup, vapourVolume } from "../vehicle";
import type { CheckId } from ".";
import { judgeCap } from "./cap";
import { judgeDecay } from "./decay";
import { capRecord, decayRecord, evapSmokeRun, pulldownTrace, REQUIRED, tankSensorRecord, ventPathRecord } from "./evap.fixture";
import { judgeEvapSmoke, planEvapSmoke, preferredEntry, readCapOff } from "./evap-smoke";
import { CHECKS, judgeCheck, type Plan } from "./index";
import { judgePulldown, readPulldown } from "./pulldown";
import { judgeTankSensor } from "./tank-sensor";
import { judgeVentPath, openingOf } from "./vent-path";

const context = contextOf(VAPOUR);
const sealed = contextOf(SEALED_NECK);
const machine = {
  id: "fen",
  name: "Fen smoker",
  ratedPressure: { value: 13, unit: "inH2O", kind: "gauge" },
  maxFlow: { value: 12, unit: "L/min" },
  autoOff: 300,
  kind: "evap-safe",
  service: [],
} as const;

describe("the vapour system's facts", () => {
  it("leaves the gas space that fuel does not fill, with its spread", () => {
    const evap = VAPOUR.evap as NonNullable<typeof VAPOUR.evap>;
    expect(vapourVolume(evap, 0.5).volume).toBeCloseTo(33.5e-3, 6);
    expect(vapourVolume(evap, 0).volume).toBeGreaterThan(vapourVolume(evap, 0.9).volume);
    expect(vapourVolume(evap, 0.5).sd).toBeCloseTo(Math.hypot(2.5e-3, 1e-3), 6);
    expect(() => vapourVolume(evap, 1.2)).toThrow(RangeError);
  });

  it("asks the code's own criteria first, then the maker, then the model year under strict rules", () => {
    const said = requiredLeakOf(VAPOUR, [{ code: "P0456", size: { value: 0.02, unit: "in" } }]);
    expect(said).toMatchObject({ source: "criteria of P0456" });
    expect(said?.diameter).toBeCloseTo(0.508e-3, 9);
    const by = (year: number, market: "strict" | "other") =>
      requiredLeakOf({ year, evap: { ...(VAPOUR.evap as NonNullable<typeof VAPOUR.evap>), market } }, [])?.diameter;
    expect(by(1998, "strict")).toBeCloseTo(1.016e-3, 9);
    expect(by(2001, "strict")).toBeUndefined();
    expect(by(2003, "strict")).toBeCloseTo(0.508e-3, 9);
    expect(by(2015, "other")).toBeUndefined();
  });

  it("knows what an entry cannot reach: behind a neck flap, behind a tank valve that passes one way", () => {
    const stopped = (facts: typeof VAPOUR, entry: string) =>
      Object.fromEntries(reachOf(layoutOf(facts), usualSetup(layoutOf(facts), entry)).stopped.map((s) => [s.zone, s.by.id]));
    expect(stopped(VAPOUR, "service-port").neck).toBeUndefined();
    expect(stopped(SEALED_NECK, "service-port").neck).toBe("neck-flap");
    const oneWay = { ...VAPOUR, evap: { ...(VAPOUR.evap as NonNullable<typeof VAPOUR.evap>), tankOneWay: true } };
    expect(stopped(oneWay, "service-port")).toMatchObject({ tank: "fill-limit-valve", neck: "fill-limit-valve" });
    expect(stopped(oneWay, "filler-cap").canister).toBeUndefined();
    expect(stopped(SEALED_NECK, "filler-cap").tank).toBeUndefined();
  });
});

describe("EVAP smoke plan", () => {
  const plan = (entry: string, change = {}) =>
    planEvapSmoke(sealed, { ...usualSetup(sealed.layout, entry), vent: "command", machine, ...change });
  const text = (p: ReturnType<typeof plan>) => p.steps.map((s) => s.text).join("\n");
  it("names the entry's price, the vent, the ceiling, and what it cannot reach; the cap is not touched", () => {
    const said = text(plan("service-port"));
    expect(said).toMatch(/Do not touch the cap/);
    expect(said).toMatch(/left-hand thread/);
    expect(said).toMatch(/time out after 30 s/);
    expect(said).toMatch(/never above 13.8\d inH2O gauge/);
    expect(said).toMatch(/cannot reach the filler neck: it is stopped at neck flap/);
    expect(plan("service-port").displaces.map((d) => d.what)).toEqual(["valve core out of the service port, adapter on"]);
  });
  it("asks a 1 psi machine to be regulated, and refuses a full or a hot tank", () => {
    expect(
      text(plan("service-port", { machine: { ...machine, ratedPressure: { value: 1, unit: "psi", kind: "gauge" } } })),
    ).toMatch(/regulate it down first/);
    expect(plan("service-port", { fuelLevel: 95 }).refused).toMatch(/no smoke goes into a full tank/);
    expect(plan("service-port", { hotTank: true }).refused).toMatch(/tank is hot/);
  });
  it("prefers the shop's entry where it is fitted, and finds the entry for what is left", () => {
    expect(preferredEntry(context)).toBe("service-port");
    expect(
      preferredEntry(contextOf({ ...VAPOUR, evap: { ...(VAPOUR.evap as NonNullable<typeof VAPOUR.evap>), servicePort: false } })),
    ).toBe("filler-cap");
    expect(entriesFor(sealed.layout, "evap", ["neck-hose"])[0]?.id).toBe("filler-cap");
    expect(entriesFor(context.layout, "evap", ["tank-flange", "neck-hose"])[0]?.id).toBe("service-port");
    expect(entriesFor(sealed.layout, "evap", ["service-port"]).map((e) => e.id)).not.toContain("service-port");
  });
});

describe("the other plans", () => {
  const steps = (plan: Plan) => plan.steps.map((s) => s.text).join("\n");
  it("hold before shutting off, and say what a reference hole takes out", () => {
    const plan = CHECKS.decay.plan(context, { ...usualSetup(context.layout, "service-port"), vent: "plug", byReference: true });
    expect(steps(plan)).toMatch(/Hold the pressure 60 s, better 120 s/);
    expect(steps(plan)).toMatch(/takes out volume, yielding walls/);
    expect(plan.displaces.map((d) => d.what)).toContain("valve core out of the service port, adapter on");
  });
  it("pull down by the engine, and refuse where a pump in the canister does it", () => {
    expect(steps(CHECKS.pulldown.plan(context, { vent: "command" }))).toMatch(/4\.0 inH2O vacuum down, not deeper/);
    const pumped = contextOf({
      ...VAPOUR,
      evap: { ...(VAPOUR.evap as NonNullable<typeof VAPOUR.evap>), monitor: "canister-pump" },
    });
    expect(CHECKS.pulldown.plan(pumped, { vent: "command" }).refused).toMatch(/a pump in the canister pulls the test/);
    expect(pumped.layout.joints.find((j) => j.id === "vent-valve")?.name).toBe("Leak-check pump and vent");
  });
  it("leave the cap as it is, and put fuel vapour's cautions first", () => {
    expect(steps(CHECKS.cap.plan(context, undefined))).toMatch(/do not tighten it first/);
    for (const kind of ["decay", "evap-smoke", "vent-path", "cap", "tank-sensor", "pulldown"] as const) {
      const plan = CHECKS[kind].plan(context, {
        ...usualSetup(context.layout, "service-port"),
        vent: "plug",
        machine,
      });
      expect(plan.cautions, kind).toContain("fuel-vapour");
    }
  });
});

describe("EVAP smoke verdict", () => {
  it("is tight only where smoke was shown, and holds the rest untested", () => {
    expect(judgeEvapSmoke(evapSmokeRun(), context)).toMatchObject({
      outcome: "pass",
      headline: "Smoke everywhere inside, none outside",
    });
    const short = judgeEvapSmoke(
      evapSmokeRun(0, {
        arrivals: [
          { zone: "canister", at: 30 },
          { zone: "tank", at: 40 },
        ],
      }),
      sealed,
    );
    expect(short).toMatchObject({ outcome: "pass", headline: "Tight as far as it reached; filler neck untested" });
    expect(short.zones).toContainEqual({ zone: "neck", state: "not-reached", why: "smoke from here is stopped at neck flap" });
    expect(short.tested).not.toContain("neck-hose");
    expect(short.tested).not.toContain("service-port");
  });
  it("marks smoke that was seen, with the size of all leaks", () => {
    const verdict = judgeEvapSmoke(
      evapSmokeRun(1.9, { seen: [{ joint: "canister-joint", at: 80 }], noSmokeOutside: false }),
      context,
    );
    expect(verdict).toMatchObject({ outcome: "fail", observation: "smoke-at:canister-joint" });
    const hole = verdict.measures.find((m) => m.name.startsWith("All leaks"));
    const flow = orificeFlow({
      upstream: 101325 + 12.5 * 249.0889,
      downstream: 101325,
      temperature: 293.15,
      diameter: (hole?.value.value ?? 0) / 1000,
    });
    expect((flow.massFlow / 1.2041) * 6e4).toBeCloseTo(1.9, 1);
  });
  it("takes smoke out of a vent that is told to shut for the valve's own leak, past a plug for the plug's", () => {
    const seen = [{ joint: "vent-valve", at: 80 }];
    expect(judgeEvapSmoke(evapSmokeRun(1.9, { seen, noSmokeOutside: false }), context)).toMatchObject({
      outcome: "fail",
      observation: "smoke-at:vent-valve",
    });
    const plugged = evapSmokeRun(1.9, { seen, vent: { by: "plug" }, noSmokeOutside: false });
    expect(judgeEvapSmoke(plugged, context)).toMatchObject({
      outcome: "void",
      reasons: [expect.stringContaining("came past what seals Vent valve")],
    });
  });
  it("calls flow with no smoke outside an inside path, and a cap-off that recovers its place", () => {
    expect(judgeEvapSmoke(evapSmokeRun(1.9), context)).toMatchObject({ outcome: "fail", observation: "smoke-inside-path" });
    const capOffs = [{ joint: "purge-line-joint", before: 1.9, hoseSide: 1.8, portSide: 0.1, blankProved: true }];
    expect(judgeEvapSmoke(evapSmokeRun(1.9, { capOffs }), context)).toMatchObject({
      observation: "pinch-recovers",
      tested: ["purge-line-joint"],
    });
    expect(readCapOff({ joint: "x", before: 2, hoseSide: 1, blankProved: true })).toBe("partly");
    expect(readCapOff({ joint: "x", before: 2, hoseSide: 1.9, portSide: 2, blankProved: true })).toBe("elsewhere");
    expect(readCapOff({ joint: "x", before: 2, hoseSide: 0, blankProved: false })).toBe("here");
    // Gone on either side, it is what lies between the blanks.
    expect(readCapOff({ joint: "x", before: 2, hoseSide: 0.05, portSide: 0, blankProved: true })).toBe("itself");
  });
  it("never passes a run whose own cap-off took flow away", () => {
    for (const sides of [{ hoseSide: 0 }, { hoseSide: 0, portSide: 0 }, { hoseSide: 0.05, portSide: 0.1 }]) {
      const capOffs = [{ joint: "purge-line-joint", before: 0.12, blankProved: true, ...sides }];
      const verdict = judgeEvapSmoke(evapSmokeRun(0, { capOffs }), context);
      expect(verdict.outcome, JSON.stringify(sides)).not.toBe("pass");
    }
  });
  it("says a hole below what is asked as that, and never that it holds", () => {
    const falls = (hole: number) =>
      judgeDecay(decayRecord(hole, { required: { ...REQUIRED, size: { value: 0.508, unit: "mm" } } }), context);
    expect(falls(0.2)).toMatchObject({
      outcome: "pass",
      word: expect.any(String),
      headline: expect.stringMatching(/^Leaks like a 0\.\d+ mm hole, below the 0\.51 mm asked/),
    });
    expect(falls(0).headline).toMatch(/^Holds its pressure/);
  });
  it("is not sure where nobody names the size, where it is below what the ball tells, or the fuel level is out", () => {
    const reason = (change: Parameters<typeof evapSmokeRun>[1]) => judgeEvapSmoke(evapSmokeRun(0, change), context);
    expect(reason({ required: undefined })).toMatchObject({
      outcome: "unsure",
      reasons: [expect.stringMatching(/which leak must be caught is not known/)],
    });
    expect(reason({ required: { ...REQUIRED, size: { value: 0.2, unit: "mm" } } })).toMatchObject({
      outcome: "unsure",
      reasons: [expect.stringMatching(/time the decay/)],
    });
    expect(reason({ fuelLevel: 92 })).toMatchObject({ outcome: "unsure", reasons: [expect.stringMatching(/92 %/)] });
    expect(
      judgeEvapSmoke(evapSmokeRun(), contextOf(VAPOUR, { house: { ...DEFAULT_SHOP.house, verdictBy: "decay" } })).outcome,
    ).toBe("unsure");
  });
  const pressure = (value: number) => ({ value, unit: "inH2O", kind: "gauge" }) as const;
  it.each<[string, CheckId, object, RegExp]>([
    [
      "service-port core not pressed",
      "evap-smoke",
      evapSmokeRun(0, { samples: Array.from({ length: 9 }, (_, i): [number, number, number] => [1 + 5 * i, 0, 12.6]) }),
      /core not pressed/,
    ],
    [
      "cap tightened before the check",
      "evap-smoke",
      evapSmokeRun(0, { touchedBefore: ["filler-cap"] }),
      /Filler cap was touched/,
    ],
    ["adapter threads", "evap-smoke", evapSmokeRun(0, { adapterLeaks: true }), /own threads/],
    ["heater off", "evap-smoke", evapSmokeRun(0, { heaterOnAt: -290 }), /timed out/],
    [
      "vent command let go",
      "evap-smoke",
      evapSmokeRun(0, { vent: { by: "command", at: -5, seconds: 30 } }),
      /timed out 71 s before/,
    ],
    [
      "not regulated",
      "evap-smoke",
      evapSmokeRun(0, { machine: { ...evapSmokeRun().machine, ratedPressure: { value: 1, unit: "psi" } } }),
      /not shown regulated/,
    ],
    [
      "above the ceiling",
      "evap-smoke",
      evapSmokeRun(0, { samples: evapSmokeRun().samples.map(([t, q, p]) => [t, q, p * 1.3]) }),
      /above its ceiling/,
    ],
    ["vent left open", "evap-smoke", evapSmokeRun(0, { blocked: [] }), /left open/],
    [
      "clamped hose above the ceiling",
      "evap-smoke",
      evapSmokeRun(0, { proof: { pressure: pressure(14.5), ballAtBottom: true, smokeSeen: true } }),
      /clamped hose came up above/,
    ],
    [
      "decay above the ceiling",
      "decay",
      decayRecord(0.5, { samples: decayRecord(0.5).samples.map(([t, p]) => [t, p * 1.6]) }),
      /above the ceiling/,
    ],
    [
      "pressure rises",
      "decay",
      decayRecord(0, { samples: Array.from({ length: 20 }, (_, i) => [5 * i, 10 + 0.02 * i]) }),
      /rose after shut-off/,
    ],
    ["cap touched", "decay", decayRecord(0.5, { touchedBefore: ["filler-cap"] }), /touched before/],
    ["trace off idle", "pulldown", pulldownTrace({}, { idled: false }), /did not idle/],
    [
      "trace, vent let go",
      "pulldown",
      pulldownTrace({}, { vent: { by: "command", at: 10, seconds: 30 } }),
      /timed out 55 s before/,
    ],
    ["cap tester not proved", "cap", capRecord({ testerProved: false }), /not proved/],
    ["sensor, cap on", "tank-sensor", tankSensorRecord({ capOff: false }), /cap was on/],
    ["sensor, key off", "tank-sensor", tankSensorRecord({ keyOn: false }), /key was off/],
  ])("is void: %s", (_name, check, record, why) => {
    const verdict = judgeCheck(check, record, context);
    expect(verdict.outcome).toBe("void");
    expect(verdict.reasons.join()).toMatch(why);
    expect(verdict.observation).toBeUndefined();
    expect(verdict.zones).toEqual([]);
  });
});

describe("decay of the system", () => {
  it("finds a hole that the size asks for by volume and by reference, and passes a tight one", () => {
    expect(judgeDecay(decayRecord(0.9), context)).toMatchObject({ outcome: "fail", observation: "decay-leaks" });
    const byReference = judgeDecay(decayRecord(0.75, {}, 0.508), context);
    expect(byReference).toMatchObject({ outcome: "fail" });
    const hole = byReference.measures[0];
    expect(hole?.low).toBeLessThanOrEqual(0.75);
    expect(hole?.high).toBeGreaterThanOrEqual(0.75);
    const tight = judgeDecay(decayRecord(0, {}, 0.508), context);
    expect(tight).toMatchObject({ outcome: "pass", observation: "decay-tight" });
    expect(tight.zones.filter((z) => z.state === "tight").map((z) => z.zone)).toEqual(["purge-line", "canister", "tank", "neck"]);
  });
  it("is not sure after a short hold, without a size, or with a gauge too coarse", () => {
    expect(judgeDecay(decayRecord(0, { held: 10 }), context).outcome).toBe("unsure");
    expect(judgeDecay(decayRecord(0, { required: undefined }), context).outcome).toBe("unsure");
    const coarse = { name: "Coarse", division: { value: 5, unit: "inH2O" as const }, zero: { value: 0, unit: "inH2O" as const } };
    expect(judgeDecay(decayRecord(0, { instrument: coarse }, 0.508), context).reasons.join()).toMatch(/too coarse/);
    expect(judgeDecay(decayRecord(0, {}, 0.508), sealed).headline).toMatch(/filler neck untested/);
  });
});

describe("pull-down trace", () => {
  const says = (truth: Parameters<typeof pulldownTrace>[0], change = {}) => judgePulldown(pulldownTrace(truth, change), context);
  it("calls no tight system leaking, however far apart its samples lie and wherever the changes fall between them", () => {
    const fine = pulldownTrace({ every: 0.5 });
    for (const every of [1, 2, 3, 4, 5, 6])
      for (let offset = 0; offset < every; offset += 0.5) {
        const points = fine.points.filter(([t]) => (t - offset) % every === 0);
        // The log shows a change at the first sample after it.
        const shown = (at: number) => points.find(([t]) => t >= at)?.[0] ?? at;
        const { ventShutAt, purgeOpenAt, purgeShutAt, ventOpenAt } = fine;
        const trace = {
          ...fine,
          points,
          ventShutAt: shown(ventShutAt),
          purgeOpenAt: shown(purgeOpenAt),
          purgeShutAt: shown(purgeShutAt),
          ventOpenAt: shown(ventOpenAt),
        };
        const { outcome } = judgePulldown(trace, context);
        expect(outcome, `every ${every} s from ${offset} s`).not.toBe("fail");
        expect(readPulldown(trace, context).hold, `every ${every} s from ${offset} s`).not.toBe("bad");
      }
  });

  it("judges pull-down, hold and relief each by itself", () => {
    expect(readPulldown(pulldownTrace(), context)).toMatchObject({ pullDown: "good", hold: "good", relief: "good" });
    expect(says({})).toMatchObject({ outcome: "pass", observation: "pulldown-good" });
    expect(says({ leak: 0.9e-3, purgeOpen: 0.8e-3 })).toMatchObject({ outcome: "fail", observation: "pulldown-loses" });
    expect(says({ ventOpen: 0 })).toMatchObject({ outcome: "fail", observation: "pulldown-no-relief" });
  });
  it("calls flow with everything shut a purge valve that leaks by", () => {
    expect(says({ purgeShut: 0.2e-3 })).toMatchObject({
      outcome: "fail",
      observation: "pulldown-creeps",
      tested: ["purge-valve"],
    });
  });
  it("tells a vent stuck open from a gross leak by pulling again with the vent plugged", () => {
    expect(says({ ventShut: 8e-3 })).toMatchObject({ observation: "pulldown-none" });
    expect(says({}, { vent: { by: "plug" } })).toMatchObject({ outcome: "pass", observation: "pulldown-good-plugged" });
    expect(says({ leak: 8e-3 }, { vent: { by: "plug" } })).toMatchObject({ observation: "pulldown-none-plugged" });
    expect(says({ purgeOpen: 0 }, { vent: { by: "plug" } })).toMatchObject({ observation: "pulldown-none-plugged" });
  });
  it("keeps the true leak in its interval, from small to large", () => {
    for (const leak of [0.5e-3, 0.8e-3, 1.2e-3, 2e-3]) {
      const { hole } = readPulldown(pulldownTrace({ leak, purgeOpen: 0.9 * leak }), context);
      expect(hole?.low, String(leak)).toBeLessThanOrEqual(leak);
      expect(hole?.high, String(leak)).toBeGreaterThanOrEqual(leak);
    }
  });
});

describe("cap, sensor and vent path", () => {
  it("judges a cap by what it loses in 10 s; a new one says nothing of the car", () => {
    expect(judgeCap(capRecord(), context)).toMatchObject({ outcome: "pass", tested: ["filler-cap"] });
    expect(judgeCap(capRecord({ end: 12 }), context)).toMatchObject({ outcome: "fail", observation: "hold-leaks:filler-cap" });
    // A hole of a made-up size, let out of the tester's space: it comes back from the loss.
    const volume = { value: 40, unit: "mL" as const };
    const flow = orificeFlow({ upstream: 101325 + 5000, downstream: 101325, temperature: 293.15, diameter: 0.1e-3 }).massFlow;
    const lost = (flow * 10 * 287.05 * 293.15) / 40e-6;
    const held = { start: 5000 + lost / 2, end: 5000 - lost / 2, unit: "Pa" as const, volume };
    const size = judgeCap(capRecord(held), context).measures.find((m) => /sharp-edged hole/.test(m.name));
    expect(size?.value.value).toBeCloseTo(0.1, 2);
    expect(judgeCap(capRecord({ part: "new", end: 12 }), context).observation).toBeUndefined();
    expect(judgeCap(capRecord({ seal: "cracked" }), context).outcome).toBe("unsure");
    // What lost its pressure is bad whatever it looks like; what held is not passed before somebody looked.
    const { seal: _, ...unseen } = capRecord({});
    expect(judgeCap(unseen, context)).toMatchObject({ outcome: "unsure", reasons: ["nobody has looked at its seal yet"] });
    expect(judgeCap({ ...unseen, end: unseen.start / 2 }, context).outcome).toBe("fail");
    expect(judgeCap(capRecord({ seconds: 4 }), context).outcome).toBe("unsure");
  });
  it("holds a sensor against its own curve, at zero and under a known pressure", () => {
    expect(judgeTankSensor(tankSensorRecord(), context)).toMatchObject({ outcome: "pass", observation: "sensor-good" });
    expect(judgeTankSensor(tankSensorRecord({ zero: { value: 2.1, unit: "V" } }), context)).toMatchObject({
      outcome: "fail",
      observation: "sensor-off",
    });
    const slope = { pressure: { value: 2, unit: "kPa", kind: "gauge" }, signal: { value: 2.0, unit: "V" } } as const;
    expect(judgeTankSensor(tankSensorRecord({ second: slope }), context)).toMatchObject({ outcome: "fail" });
    expect(judgeTankSensor(tankSensorRecord({ second: undefined }), context).outcome).toBe("unsure");
    expect(judgeTankSensor(tankSensorRecord(), contextOf({ ...VAPOUR, evap: undefined })).outcome).toBe("unsure");
  });
  it("stops at the first blocked part of the vent path", () => {
    expect(judgeVentPath(ventPathRecord(), context)).toMatchObject({ outcome: "pass", observation: "vent-free" });
    expect(judgeVentPath(ventPathRecord([40, 60, 1800, 90], { nozzle: "clicks-off" }), context)).toMatchObject({
      outcome: "fail",
      observation: "vent-blocked:canister-joint",
    });
    expect(judgeVentPath(ventPathRecord([40]), context)).toMatchObject({ outcome: "unsure" });
    const [part] = ventPathRecord([400]).parts;
    const opening = openingOf(part as NonNullable<typeof part>, ventPathRecord());
    const flow = orificeFlow({ upstream: 101725, downstream: 101325, temperature: 293.15, diameter: opening });
    expect((flow.massFlow / 1.2041) * 6e4).toBeCloseTo(30, 0);
  });
});
