import { Network, type NetworkSpec } from "@/core/gas/network/network";

const AMBIENT = 101_325;
const WARM = 293.15;

/** A row of zones of a car's sizes, tied one to the next and here and there across and to the air, smoke let in at its head. */
function row(zones: number, tracer: boolean): NetworkSpec {
  const litres = [0.05, 3, 30, 1.2, 0.4, 6];
  return {
    ambient: AMBIENT,
    temperature: WARM,
    zones: Array.from({ length: zones }, (_, i) => ({
      id: `z${i}`,
      volume: (litres[i % litres.length] as number) * 1e-3,
      pressure: AMBIENT,
      temperature: WARM,
      wallTime: 15 + i,
    })),
    joints: [
      { id: "smoke", from: "outside", to: "z0", law: { type: "regulator", setPressure: AMBIENT + 3238, maxFlow: 2.4e-4 } },
      ...Array.from({ length: zones - 1 }, (_, i) => ({
        id: `j${i}`,
        from: `z${i}`,
        to: `z${i + 1}`,
        law: { type: "orifice", effectiveArea: 8e-6 + 1e-6 * (i % 5) } as const,
      })),
      ...Array.from({ length: Math.ceil(zones * 0.4) }, (_, i) => ({
        id: `o${i}`,
        from: `z${(i * 2) % zones}`,
        to: i % 3 === 0 ? `z${(i * 2 + 3) % zones}` : "outside",
        law: { type: "orifice", effectiveArea: 1e-7 * (1 + i) } as const,
      })),
    ],
    ...(tracer ? { tracer: "smoke" } : {}),
  };
}

/** Runs for at least so many s of the wall clock after it is warm; @returns simulated s per s. */
function timesReal(spec: NetworkSpec, stretch: number, seconds = 1.5): number {
  let network = new Network(spec);
  network.advance(stretch * 20);
  const start = performance.now();
  let run = 0;
  while (performance.now() - start < 1000 * seconds) {
    // A network at rest costs nothing: every minute a new one is filled.
    network = new Network(spec);
    for (let t = stretch; t <= 60; t += stretch) network.advance(t);
    run += 60;
  }
  return run / ((performance.now() - start) / 1000);
}

/** Mass error of the network solver over an hour, and how fast it runs: free, with a tracer at 60 frames a second, and by size. */
export function networkTrial() {
  const hour = new Network(row(20, true));
  const start = hour.mass.reduce((a, b) => a + b, 0);
  for (let t = 60; t <= 3600; t += 60) hour.advance(t);
  let brought = 0;
  row(20, true).joints.forEach((j, k) => {
    if (j.from === "outside") brought += hour.passed[k] as number;
    if (j.to === "outside") brought -= hour.passed[k] as number;
  });
  const mass = Math.abs(hour.mass.reduce((a, b) => a + b, 0) - start - brought) / start;
  const sizes = [5, 10, 20, 40].map((zones) => [zones, timesReal(row(zones, false), 60)] as const);
  const [small, large] = [sizes[0], sizes[3]] as [readonly [number, number], readonly [number, number]];
  return {
    mass,
    free: (sizes[2] as readonly [number, number])[1],
    frames: timesReal(row(20, true), 1 / 60),
    sizes,
    /** Cost grows as zones to this power */
    power: Math.log(small[1] / large[1]) / Math.log(large[0] / small[0]),
    joints: row(20, false).joints.length,
  };
}
