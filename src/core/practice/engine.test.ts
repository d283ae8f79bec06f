import { describe, expect, it } from "vitest";
import { judgeCheck } from "../checks";
import { type ProbeRecord, probeSeries, readTaps } from "../checks/probe";
import { judgeTrims, readSurvey, type TrimPoint, type TrimSurvey } from "../checks/trims";
import { contextOf, NATURAL } from "../core.fixture";
import { LiveLog } from "../devices/live-log";
import { type StandInEngine, standInEngine } from "../devices/stand-in-engine";
import { findSteadyWindows, surveyPoints } from "../scan-log";
import { DEFAULT_LIMITS } from "../shop/settings";
import { toSi } from "../units";
import { PracticeEngine } from "./engine";

const truth = { displacement: toSi(NATURAL.displacement), ambient: 100.6e3, temperature: 290, hole: 0 };
const read = (engine: PracticeEngine) => {
  const { rpm, maf, map } = engine.read();
  const long = engine.read()["long-trim-1"] as number;
  // What swings with closed loop is averaged out by looking often.
  const short = Array.from({ length: 40 }, () => engine.read()["short-trim-1"] as number).reduce((a, b) => a + b, 0) / 40;
  return { rpm: rpm as number, maf: maf as number, map: map as number, short, long };
};

describe("an engine that behaves", () => {
  it("idles, is held, and comes back, with the air and the pressure that such an engine has", () => {
    const engine = new PracticeEngine(truth, 3);
    engine.advance(20);
    expect(read(engine).rpm).toBeGreaterThan(715);
    expect(read(engine).rpm).toBeLessThan(765);
    // Trade's figure: about 1.1 g/s for each litre of a warm idle, and a manifold well below a half.
    const perLitre = (read(engine).maf * 1e3) / (truth.displacement * 1e3);
    expect(perLitre).toBeGreaterThan(0.66);
    expect(perLitre).toBeLessThan(1.9);
    expect(read(engine).map).toBeLessThan(45e3);
    engine.driving = { foot: 2500 };
    engine.advance(45);
    expect(Math.abs(read(engine).rpm - 2500)).toBeLessThan(40);
    engine.driving = {};
    let least = 9999;
    for (let t = 45; t < 90; t += 0.5) {
      engine.advance(t);
      least = Math.min(least, read(engine).rpm);
    }
    expect(least).toBeGreaterThan(500);
    expect(Math.abs(read(engine).rpm - 740)).toBeLessThan(25);
  });

  it("comes to the trims that the unmetered air asks for, and takes minutes to learn them and to forget", () => {
    const engine = new PracticeEngine({ ...truth, hole: 2e-3 }, 5);
    engine.advance(3);
    const early = read(engine);
    expect(early.long).toBeLessThan(8);
    engine.advance(120);
    const { short, long } = read(engine);
    const total = (1 + short / 100) * (1 + long / 100) - 1;
    expect(Math.abs(total - (engine.state.trims[0] as number))).toBeLessThan(0.02);
    expect(engine.state.trims[0] as number).toBeGreaterThan(0.1);
    expect(Math.abs(short)).toBeLessThan(3);
    // Sound all along, it asks for nothing.
    const sound = new PracticeEngine(truth, 5);
    sound.advance(120);
    expect(Math.abs(read(sound).short + read(sound).long)).toBeLessThan(2);
    expect(sound.state.trims[0] as number).toBeCloseTo(0, 3);
  });

  it("is the same again for the same seed, however it is stepped", () => {
    const run = (stretch: number) => {
      const engine = new PracticeEngine({ ...truth, hole: 1.5e-3 }, 9);
      for (let t = stretch; t <= 30.0001; t += stretch) {
        engine.advance(t);
        // Looking changes nothing.
        engine.read();
      }
      return [engine.time.toFixed(6), engine.state.trims[0] as number];
    };
    expect(run(0.5)).toEqual(run(0.5));
    expect(run(0.5)).toEqual(run(7.5));
  });
});

describe("taps on the live stream", () => {
  it("made while the trims still learn are never answered: a drift that ends is no reaction", () => {
    for (const [displacement, hole] of [
      [1.1e-3, 2.25e-3],
      [1.6e-3, 2e-3],
      [2e-3, 2.4e-3],
    ] as const)
      for (let at = 6; at <= 30; at += 1.5) {
        let tick = () => {};
        const tool = standInEngine({ ...truth, displacement, hole }, 11, (_, run) => {
          tick = run;
          return () => {};
        });
        const live = new LiveLog(tool.channels);
        tool.start({ row: (row) => void live.push(row), ended: () => {} });
        for (let i = 0; i < 5 * (at + 12); i++) tick();
        const series = probeSeries(live.log, [at], "product");
        const [reading] = readTaps(
          {
            agent: "gas",
            source: { kind: "device", device: tool.name, simulated: false },
            closedLoop: true,
            taps: [{ joint: "oil-cap", at }],
            ...(series ? { series } : {}),
          },
          contextOf(NATURAL),
        );
        expect(reading?.outcome, `${displacement} ${hole} at ${at} s: ${reading?.why}`).not.toBe("reacts");
      }
  });

  it("are answered where the hole is and nowhere else, seconds late, and read as such", () => {
    let tick = () => {};
    const tool = standInEngine(
      { ...truth, hole: 2e-3 },
      7,
      (_, run) => {
        tick = run;
        return () => {};
      },
      1,
      200,
      (joint) => joint === "pcv-hose",
    );
    const live = new LiveLog(tool.channels);
    tool.start({ row: (row) => void live.push(row), ended: () => {} });
    const run = (seconds: number) => {
      for (let i = 0; i < 5 * seconds; i++) tick();
    };
    run(90);
    tool.tap("manifold-gasket");
    run(25);
    tool.tap("pcv-hose");
    run(25);
    const series = probeSeries(live.log, [90, 115], "product");
    const record: ProbeRecord = {
      agent: "gas",
      source: { kind: "device", device: tool.name, simulated: false },
      closedLoop: true,
      taps: [
        { joint: "manifold-gasket", at: 90 },
        { joint: "pcv-hose", at: 115 },
      ],
      ...(series ? { series } : {}),
    };
    const readings = readTaps(record, contextOf(NATURAL));
    expect(readings.map((r) => r.outcome)).toEqual(["quiet", "reacts"]);
    expect(judgeCheck("probe", record, contextOf(NATURAL)).observation).toBe("probe-at:pcv-hose");
  });
});

/** Idle, 1500 and 2500 held one after the other, read live, and the survey that came of it. */
function surveyed(hole: number, seed: number, fuelError = 0): TrimSurvey {
  let tick = () => {};
  const tool: StandInEngine = standInEngine({ ...truth, hole, fuelError }, seed, (_, run) => {
    tick = run;
    return () => {};
  });
  const live = new LiveLog(tool.channels);
  tool.start({ row: (row) => void live.push(row), ended: () => {} });
  for (const rpm of [undefined, 1500, 2500]) {
    tool.hold(rpm);
    for (let i = 0; i < 5 * 70; i++) tick();
  }
  // A point counts once it has learnt: the last half of each.
  const points: TrimPoint[] = surveyPoints(
    findSteadyWindows(live.log, DEFAULT_LIMITS).filter((w) => [70, 140, 210].some((end) => w.to > end - 30 && w.to <= end)),
  );
  return {
    source: { kind: "device", device: tool.name, simulated: false },
    ambient: { value: 1006, unit: "hPa", kind: "absolute" },
    intakeTemperature: { value: 17, unit: "°C" },
    points,
  };
}

describe("the trim survey, measured on an engine that knows nothing of it", () => {
  const context = contextOf(NATURAL);
  it("sizes a hole in the manifold, names none where there is none, and tells bad fuelling from it", () => {
    for (const [hole, seed] of [
      [1.6e-3, 1],
      [2e-3, 2],
      [2.4e-3, 3],
    ] as const) {
      const survey = surveyed(hole, seed);
      expect(survey.points.length).toBeGreaterThanOrEqual(3);
      expect(judgeTrims(survey, context).observation).toBe("lean-fades-with-flow");
      const bank = readSurvey(survey, context.vehicle, "product", { good: 0.05, act: 0.1 }).banks[0];
      expect(bank?.shapes[0]?.id).toBe("fades-with-flow");
      expect(bank?.hole?.low).toBeLessThan(hole);
      expect(bank?.hole?.high).toBeGreaterThan(hole);
    }
    expect(judgeTrims(surveyed(0, 4), context).outcome).toBe("pass");
    expect(judgeTrims(surveyed(0, 5, 0.14), context).observation).toMatch(/constant/);
  });
});
