import { describe, expect, it } from "vitest";
import { boostLog, boostTrial } from "../../../bench/boost-trial";
import { BOOST_SHAPES, judgeBoost } from "./boost";
import type { BoostLog } from "./boost-log";

const clean = () => boostLog(42, () => 0).log;
const leaking = () => boostLog(42, () => 0.1).log;
const best = (log: BoostLog) => judgeBoost(log).shapes[0]?.id;
const why = (log: BoostLog) => judgeBoost(log).reasons.join("; ");
const each = (log: BoostLog, change: (p: BoostLog["points"][number]) => object): BoostLog => ({
  ...log,
  points: log.points.map((p) => ({ ...p, ...change(p) })),
});
const under = (log: BoostLog, p: BoostLog["points"][number]) => (p.map as number) > 1.15 * log.ambient;

describe("boost from a log", () => {
  it("names a leak with a size whose interval holds it, and none where there is none", () => {
    // Marks of the trial on a quarter of its logs: the rest runs in the bench.
    const trial = boostTrial(120, 3);
    expect(trial.namedFrom6).toBeGreaterThanOrEqual(0.9);
    expect(trial.namedAt4).toBeGreaterThanOrEqual(0.6);
    expect(trial.within20).toBeGreaterThanOrEqual(0.9);
    expect(trial.covered).toBeGreaterThanOrEqual(0.9);
    expect(trial.falseAlarms).toBeLessThanOrEqual(0.01);
  });

  it("gives odds that add up, and says the smallest hole that it could have shown", () => {
    for (const log of [clean(), leaking()]) {
      const { shapes, efficiency } = judgeBoost(log);
      expect(shapes.map((s) => s.id).toSorted()).toEqual([...BOOST_SHAPES].toSorted());
      expect(shapes.reduce((sum, s) => sum + s.odds, 0)).toBeCloseTo(1, 9);
      expect(why(log)).toMatch(/smallest hole that this log could have shown is \d/);
      expect(efficiency?.low).toBeLessThan(efficiency?.value as number);
    }
    expect(judgeBoost(clean()).hole).toBeNull();
  });

  it("makes of every point what the engine breathes and what the leak takes, which together are what was metered", () => {
    for (const [log, leaks] of [
      [leaking(), true],
      [clean(), false],
    ] as const) {
      const { fit } = judgeBoost(log);
      expect(fit).toHaveLength(log.points.filter((p) => p.maf !== undefined && p.rpm > 0).length);
      for (const { metered, breathed, lost } of fit ?? []) {
        expect(Math.abs((breathed + lost) / metered - 1)).toBeLessThan(0.05);
        // Where the pipe stands below the air outside a hole lets in.
        expect(lost).toBeGreaterThan(-0.005 * metered);
      }
      const most = Math.max(...(fit ?? []).map(({ metered, lost }) => lost / metered));
      if (leaks) expect(most).toBeGreaterThan(0.05);
      else expect(most).toBeLessThan(0.05);
    }
    expect(judgeBoost(each(clean(), () => ({ maf: undefined }))).fit).toBeNull();
  });

  it("names a meter that is off only beside what the engine breathed when it was sound, and apart from the engine by its trims", () => {
    const known = judgeBoost(clean()).efficiency?.value as number;
    const off = (gain: number, more: Partial<BoostLog> = {}, trim?: number): BoostLog => ({
      ...each(clean(), (p) => ({ maf: p.maf === undefined ? undefined : gain * p.maf, ...(trim === undefined ? {} : { trim }) })),
      ...more,
    });
    const first = (log: BoostLog) => judgeBoost(log).shapes[0];
    for (const gain of [0.9, 1.1]) {
      expect(first(off(gain))?.id).toBe("sound");
      expect(why(off(gain))).toMatch(/a MAF off by less than \d+ % across the range would not show here: compare/);
      expect(first(off(gain, { known }))).toMatchObject({
        id: "meter-or-breathing",
        members: ["MAF", "valve timing, valves or rings"],
      });
      expect(first(off(gain, { known }, 1 / gain - 1))?.members).toEqual(["MAF"]);
      expect(first(off(gain, { known }, 0.01))?.members).toEqual(["valve timing, valves or rings"]);
    }
    expect(first(off(1, { known }, 0.02))?.id).toBe("sound");
    // Fuel pressure moves the trims, and no air.
    expect(first(off(1, { known }, 0.12))?.id).toBe("sound");
    expect(first({ ...leaking(), known })?.id).toBe("leak-after-meter");
  });

  it.each<[string, (log: BoostLog) => BoostLog, RegExp]>([
    ["with EGR", (log) => ({ ...log, egr: "open" }), /EGR was open while it was logged/],
    ["with exhaust perhaps led back", (log) => ({ ...log, egr: "unknown" }), /nobody knows/],
    ["without an MAF", (log) => each(log, () => ({ maf: undefined })), /no MAF.*Test the charge side/],
    ["without manifold pressure", (log) => each(log, () => ({ map: undefined })), /manifold pressure was not logged/],
    [
      "without points off boost",
      (log) => ({ ...log, points: log.points.filter((p) => under(log, p)) }),
      /(no|only \d) points? off boost: 3 or more/,
    ],
    ["without points under boost", (log) => ({ ...log, points: log.points.filter((p) => !under(log, p)) }), /points under boost/],
    ["of another engine", (log) => ({ ...log, displacement: log.displacement * 3 }), /do not fit one engine|breathing/],
    [
      "with half its pressures mistyped",
      (log) => ({ ...log, points: log.points.map((p, i) => (i % 3 === 1 ? { ...p, maf: 2 * (p.maf as number) } : p)) }),
      /do not fit one engine/,
    ],
  ])("gives no size %s, and says why", (_, change, reason) => {
    const log = change(leaking());
    expect(judgeBoost(log).hole).toBeNull();
    expect(why(log)).toMatch(reason);
  });

  it("tells what falls short with its meter from what leaks, and one actuator from the other", () => {
    const short = (log: BoostLog) => each(log, (p) => (under(log, p) ? { asked: (p.charge as number) + 35e3 } : {}));
    expect(best(short(clean()))).toBe("restricted-or-lazy");
    expect(best(short(leaking()))).toBe("leak-after-meter");
    expect(why(short(clean()))).toMatch(/look alike/);
    const lazy = each(short(clean()), () => ({ actuator: { command: 0.8, position: 0.4 } }));
    const restricted = each(short(clean()), () => ({ actuator: { command: 0.8, position: 0.79 } }));
    const members = (log: BoostLog) =>
      judgeBoost(log)
        .shapes.find((s) => s.id === "restricted-or-lazy")
        ?.members.join();
    expect(members(lazy)).not.toMatch(/filter/);
    expect(members(restricted)).toMatch(/filter/);
    expect(members(restricted)).not.toMatch(/close/);
    const held = (log: BoostLog) => each(log, (p) => (under(log, p) ? { asked: p.charge } : {}));
    expect(best(held(clean()))).toBe("sound");
    const over = each(clean(), (p) => (under(clean(), p) ? { asked: (p.charge as number) - 30e3 } : {}));
    expect(best(over)).toBe("over-boost");
    expect(why(over)).toMatch(/columns are swapped/);
  });

  it("calls a dip that does not matter no shortfall, by gauge and not by absolute pressure", () => {
    const by = (much: number) => {
      const log = clean();
      return each(log, (p) => (under(log, p) ? { asked: (p.charge as number) + much } : {}));
    };
    expect(best(by(9e3))).toBe("sound");
    expect(best(by(22e3))).toBe("restricted-or-lazy");
  });

  it("names the sensor that differs with the engine standing, and believes nothing else then", () => {
    const log = leaking();
    const at = (map: number) => ({
      ...log,
      points: [{ rpm: 0, map, charge: log.ambient + 400, chargeTemperature: 293 }, ...log.points],
    });
    expect(best(at(log.ambient + 6e3))).toBe("sensor-offset");
    expect(why(at(log.ambient + 6e3))).toMatch(/the manifold sensor reads .* off by 5\.8 kPa/);
    expect(best(at(log.ambient + 900))).toBe("leak-after-meter");
  });

  it("sees an exhaust that holds the engine back", () => {
    const log = clean();
    const most = Math.max(...log.points.map((p) => p.maf as number));
    const blocked = each(log, (p) => (under(log, p) ? { maf: (p.maf as number) * (1 - 0.18 * ((p.maf as number) / most)) } : {}));
    expect(best(blocked)).toBe("exhaust-restricted");
  });

  it("refuses gauge pressure beside absolute, and points that say nothing", () => {
    const log = clean();
    expect(() => judgeBoost(each(log, (p) => (under(log, p) ? { asked: (p.charge as number) - log.ambient } : {})))).toThrow(
      /gauge pressure beside absolute/,
    );
    expect(() => judgeBoost({ ...log, points: [] })).toThrow(/at least one point/);
    expect(() => judgeBoost(each(log, () => ({ map: undefined, charge: undefined })))).toThrow(/log one of them/);
  });
});
