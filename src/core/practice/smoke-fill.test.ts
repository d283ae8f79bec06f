import { describe, expect, it } from "vitest";
import { readSmoke, type SmokeRun } from "../checks/smoke";
import { NATURAL, smokeRun } from "../core.fixture";
import { fromSi, toSi } from "../units";
import { layoutOf, reachOf, usualSetup } from "../vehicle";
import { SmokeFill } from "./smoke-fill";

const layout = layoutOf(NATURAL);
const air = { ambient: 100.6e3, temperature: 290 };
const { machine } = smokeRun();
const push = { ratedPressure: toSi(machine.ratedPressure), maxFlow: toSi(machine.maxFlow) };
const setup = usualSetup(layout, "air-meter");
const fill = (holes: { joint: string; diameter: number }[], change = {}) =>
  new SmokeFill(layout, { ...setup, ...change }, push, holes, air, 7);

/** A run as somebody reads it off the ball every five seconds. */
function run(one: SmokeFill, seconds: number): SmokeRun {
  const samples: [number, number, number][] = [];
  for (let t = 1; t <= seconds; t += 5) {
    one.advance(t);
    const { flow, pressure } = one.read();
    samples.push([t, fromSi(flow, "L/min").value, fromSi(pressure, "inH2O").value]);
  }
  return {
    ...smokeRun(),
    ...setup,
    samples,
    units: { flow: "L/min", pressure: "inH2O" },
    ambient: { value: air.ambient, unit: "Pa", kind: "absolute" },
    temperature: fromSi(air.temperature, "°C"),
    endedAt: seconds,
  };
}
const settled = (holes: { joint: string; diameter: number }[]) => {
  const one = fill(holes);
  one.advance(120);
  return one.read();
};

describe("a smoke fill of a layout", () => {
  it("settles at what its holes pass, and more with a larger one", () => {
    const sound = settled([]);
    const [small, large] = [1e-3, 2.4e-3].map((diameter) => settled([{ joint: "pcv-hose", diameter }]));
    expect(sound.pressure).toBeGreaterThan(0.97 * push.ratedPressure);
    // The tail is plugged: once it is full, next to nothing flows.
    expect(sound.flow).toBeLessThan(0.03 * push.maxFlow);
    expect(small?.flow).toBeGreaterThan(sound.flow + 0.05 * push.maxFlow);
    expect(large?.flow).toBeGreaterThan(1.5 * (small?.flow as number));
  });

  it("is read by the check as the size of all its openings together", () => {
    const hole = 2e-3;
    const reading = readSmoke(run(fill([{ joint: "pcv-hose", diameter: hole }]), 150), reachOf(layout, setup));
    expect(reading.flow?.settled).toBe(true);
    expect(reading.hole?.diameter).toBeGreaterThan(0.95 * hole);
    expect(reading.hole?.diameter).toBeLessThan(1.05 * hole);
  });

  it("shows no hole that is plugged, hidden by the hose, or out of reach", () => {
    const flow = (joint: string, change = {}) => {
      const one = fill([{ joint, diameter: 3e-3 }], change);
      one.advance(120);
      return one.read().flow;
    };
    const none = settled([]).flow;
    const near = (value: number) => expect(Math.abs(value - none)).toBeLessThan(0.03 * push.maxFlow);
    near(flow("pcv-hose", { blocked: [...setup.blocked, "pcv-hose"] }));
    near(flow("air-meter"));
    near(flow("filler-cap"));
    expect(flow("pcv-hose") - none).toBeGreaterThan(0.1 * push.maxFlow);
  });

  it("brings smoke first to where it goes in, and to no dead end that stays shut", () => {
    const one = fill([]);
    one.advance(15);
    expect(one.smoked).toContain("metered-duct");
    expect(one.smoked).not.toContain("manifold");
    // Nothing leaves: pressure gets everywhere, smoke does not.
    one.advance(600);
    expect(one.smoked).not.toContain("tail");
    const open = fill([], { blocked: [] });
    open.advance(600);
    expect(open.smoked).toEqual(expect.arrayContaining(["manifold", "cylinders", "tail"]));
  });

  it("refuses a way in where nothing is filled", () => {
    expect(() => fill([], { entry: "nowhere" })).toThrow(/no entry/);
  });
});
