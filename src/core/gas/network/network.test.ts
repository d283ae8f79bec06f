import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { REFERENCE_CASES } from "../../../../bench/network-cases";
import { R_AIR } from "../air";
import { SHARP_EDGED } from "../orifice";
import { type JointLaw, jointFlow, stillJoint } from "./joints";
import { Network, type NetworkSpec } from "./network";

const AMBIENT = 101_325;
const WARM = 293.15;
const INCH_WATER = 249.0889;
const area = (mm: number) => (SHARP_EDGED * Math.PI * (mm * 1e-3) ** 2) / 4;
const zone = (id: string, litres: number, pressure = AMBIENT) => ({ id, volume: litres * 1e-3, pressure, temperature: WARM });
const air = { ambient: AMBIENT, temperature: WARM };

const LAWS: readonly JointLaw[] = [
  { type: "orifice", effectiveArea: 2e-6 },
  { type: "one-way", effectiveArea: 2e-6 },
  { type: "pipe", resistance: 1e6 },
  { type: "pump", maxFlow: 1e-3, stallPressure: 40e3 },
  { type: "regulator", setPressure: 120e3, maxFlow: 2e-4 },
  { type: "sweep", rate: 0.01 },
];

describe("the laws of joints", () => {
  it.each(LAWS)("$type: its slopes are those of its flow", (law) => {
    const pressure = fc.double({ min: 20e3, max: 400e3, noNaN: true });
    const temperature = fc.double({ min: 250, max: 500, noNaN: true });
    const flow = (...at: [number, number, number, number]) => {
      const out = stillJoint();
      jointFlow(law, ...at, out);
      return out;
    };
    fc.assert(
      fc.property(pressure, temperature, pressure, temperature, (p1, t1, p2, t2) => {
        // Away from the corners that a law has: at no pressure across it, at its stall and where it is full open.
        fc.pre(Math.abs(p1 - p2) > 20 && Math.abs(p2 - p1 - 40e3) > 50 && Math.abs(p2 - 120e3) > 50);
        const band = Math.max(1, 0.01 * Math.abs(120e3 - p1));
        fc.pre(law.type !== "regulator" || (Math.abs(120e3 - p2 - band) > 50 && p2 < 119e3 - band));
        const at = [p1, t1, p2, t2] as const;
        const slopes = [flow(...at).byFrom, flow(...at).byFromTemperature, flow(...at).byTo, flow(...at).byToTemperature];
        slopes.forEach((slope, i) => {
          const d = i % 2 === 0 ? 0.5 : 1e-3;
          const moved = (by: number) =>
            flow(...(at.map((x, k) => (k === i ? x + by : x)) as [number, number, number, number])).flow;
          const difference = (moved(d) - moved(-d)) / (2 * d);
          expect(Math.abs(slope - difference)).toBeLessThanOrEqual(2e-4 * Math.abs(difference) + 1e-14);
        });
      }),
    );
  });

  it("let nothing through a shut hole, back through a one-way valve, or out of a pump that stalls", () => {
    const out = stillJoint();
    jointFlow({ type: "orifice", effectiveArea: 0 }, 2e5, WARM, 1e5, WARM, out);
    expect(out.flow).toBe(0);
    jointFlow({ type: "one-way", effectiveArea: 1e-6 }, 1e5, WARM, 2e5, WARM, out);
    expect(out.flow).toBe(0);
    jointFlow({ type: "pump", maxFlow: 1e-3, stallPressure: 5e4 }, 1e5, WARM, 1.6e5, WARM, out);
    expect(out.flow).toBe(0);
  });
});

describe("a network of gas volumes", () => {
  it("falls as the published figures say: 30 L from 10 inH2O, isothermal", () => {
    const falls = (inch: number) => {
      const network = new Network({
        ...air,
        isothermal: true,
        zones: [zone("tank", 30, AMBIENT + 10 * INCH_WATER)],
        joints: [{ id: "leak", from: "tank", to: "outside", law: { type: "orifice", effectiveArea: area(inch * 25.4) } }],
      });
      return [30, 60, 120].map((t) => {
        network.advance(t);
        return Number(((network.pressure(0) - AMBIENT) / INCH_WATER).toFixed(2));
      });
    };
    expect(falls(0.02)).toEqual([7.03, 4.58, 1.25]);
    expect(falls(0.01)).toEqual([9.21, 8.45, 7.03]);
  });

  const reference = JSON.parse(readFileSync("bench/network-reference.json", "utf8")) as Record<
    string,
    { t: number; pressures: number[]; temperatures: number[] }[]
  >;
  it.each(Object.entries(REFERENCE_CASES))("is within 2 Pa of what another method makes of %s", (name, { spec, events }) => {
    const network = new Network(spec);
    let next = 0;
    for (const { t, pressures, temperatures } of reference[name] ?? []) {
      for (; next < events.length && (events[next]?.at as number) <= t; next++) {
        network.advance(events[next]?.at as number);
        network.set(events[next]?.joint as number, events[next]?.law as JointLaw);
      }
      network.advance(t);
      pressures.forEach((p, i) => {
        expect(Math.abs(network.pressure(i) - p), `${spec.zones[i]?.id} after ${t} s`).toBeLessThanOrEqual(2);
        expect(Math.abs(network.temperature(i) - (temperatures[i] as number))).toBeLessThanOrEqual(0.05);
      });
    }
    expect(reference[name]?.length).toBeGreaterThan(5);
  });

  /** Random nets: some zones, each tied to an earlier one or to the air, and some besides. */
  const nets = fc
    .tuple(
      fc.array(
        fc.record({
          volume: fc.double({ min: 1e-5, max: 5e-2, noNaN: true }),
          pressure: fc.double({ min: 30e3, max: 300e3, noNaN: true }),
          wallTime: fc.option(fc.double({ min: 0.5, max: 40, noNaN: true }), { nil: undefined }),
        }),
        { minLength: 2, maxLength: 6 },
      ),
      fc.array(fc.tuple(fc.nat(), fc.nat(), fc.constantFrom(...LAWS)), { minLength: 6, maxLength: 10 }),
      fc.boolean(),
    )
    .map(([zones, joints, isothermal]): NetworkSpec => {
      const ids = ["outside", ...zones.map((_, i) => `z${i}`)];
      return {
        ...air,
        ...(isothermal ? { isothermal: true } : {}),
        tracer: "j0",
        zones: zones.map(({ wallTime, ...z }, i) => ({
          id: `z${i}`,
          temperature: WARM,
          ...z,
          ...(wallTime === undefined ? {} : { wallTime }),
        })),
        joints: joints.flatMap(([a, b, law], i) => {
          const from = ids[a % ids.length] as string;
          const to = ids[b % ids.length] as string;
          return from === to ? [] : [{ id: `j${i}`, from, to, law }];
        }),
      };
    });

  it("loses and makes no gas, whatever is tied to what: what is in it is what was, and what the joints brought", () => {
    fc.assert(
      fc.property(nets, (spec) => {
        const network = new Network(spec);
        const total = () => network.mass.reduce((a, b) => a + b, 0);
        const start = total();
        for (let t = 1; t <= 5; t++) network.advance(t * 0.7);
        let brought = 0;
        spec.joints.forEach((j, k) => {
          if (j.from === "outside") brought += network.passed[k] as number;
          if (j.to === "outside") brought -= network.passed[k] as number;
        });
        const scale = start + network.passed.reduce((a, b) => a + Math.abs(b), 0);
        expect(Math.abs(total() - start - brought) / scale).toBeLessThan(1e-12);
        for (const c of network.share) {
          expect(c).toBeGreaterThanOrEqual(0);
          expect(c).toBeLessThanOrEqual(1);
        }
      }),
      { numRuns: 60 },
    );
  });

  it("keeps its heat where no wall draws any, and every zone's temperature where it is told to", () => {
    const spec: NetworkSpec = {
      ...air,
      zones: [zone("a", 10, 400e3), zone("b", 2)],
      joints: [{ id: "valve", from: "a", to: "b", law: { type: "orifice", effectiveArea: area(3) } }],
    };
    const heat = (n: Network) => [0, 1].reduce((sum, i) => sum + n.pressure(i) * (spec.zones[i]?.volume as number), 0);
    const adiabatic = new Network(spec);
    const before = heat(adiabatic);
    adiabatic.advance(60);
    expect(heat(adiabatic) / before).toBeCloseTo(1, 9);
    // What is let out of a bottle cools it, and warms what it fills.
    expect(adiabatic.temperature(0)).toBeLessThan(WARM - 1);
    expect(adiabatic.temperature(1)).toBeGreaterThan(WARM + 20);
    const still = new Network({ ...spec, isothermal: true });
    still.advance(60);
    expect([still.temperature(0), still.temperature(1)]).toEqual([WARM, WARM]);
    expect(still.pressure(0)).toBeCloseTo((400e3 * 10 + AMBIENT * 2) / 12, 0);
  });

  it("fills a dead end with pressure and never with smoke, and a way through with both", () => {
    const through = (open: boolean) => {
      const network = new Network({
        ...air,
        isothermal: true,
        tracer: "smoke",
        zones: [zone("near", 2), zone("far", 2)],
        joints: [
          { id: "smoke", from: "outside", to: "near", law: { type: "regulator", setPressure: AMBIENT + 3000, maxFlow: 2e-4 } },
          { id: "hose", from: "near", to: "far", law: { type: "orifice", effectiveArea: area(4) } },
          { id: "end", from: "far", to: "outside", law: { type: "orifice", effectiveArea: open ? area(3) : 0 } },
        ],
      });
      network.advance(60);
      return { pressure: network.pressure(1) - AMBIENT, smoke: network.share[1] as number };
    };
    expect(through(false).pressure).toBeGreaterThan(2900);
    expect(through(false).smoke).toBeLessThan(0.05);
    expect(through(true).smoke).toBeGreaterThan(0.95);
  });

  it("is the same however it is stepped to, and again the same when it is run again", () => {
    const run = (steps: number) => {
      const network = new Network(REFERENCE_CASES["fill-and-settle"]?.spec as NetworkSpec);
      for (let k = 1; k <= steps; k++) network.advance((20 * k) / steps);
      return network.pressure(1);
    };
    expect(run(7)).toBe(run(7));
    expect(Math.abs(run(1) - run(400))).toBeLessThan(1);
  });

  it("refuses a zone that is not there, and a volume that is none", () => {
    const joint = { id: "j", from: "a", to: "b", law: LAWS[0] as JointLaw };
    expect(() => new Network({ ...air, zones: [zone("a", 1)], joints: [joint] })).toThrow(/no zone "b"/);
    expect(() => new Network({ ...air, zones: [{ ...zone("a", 1), volume: 0 }], joints: [] })).toThrow(/volume/);
    expect((AMBIENT * 1e-3) / (R_AIR * WARM)).toBeCloseTo(
      new Network({ ...air, zones: [zone("a", 1)], joints: [] }).mass[0] as number,
      12,
    );
  });
});
