import { judgeBoost } from "@/core/gas/boost";
import type { BoostLog } from "@/core/gas/boost-log";
import { seededNoise } from "@/core/maths/random";

const GAMMA = 1.4;
const R = 287.05;

/** Nozzle flow per effective area, by its textbook form (Saint-Venant & Wantzel 1839). */
export function nozzle(p1: number, p2: number, temperature: number): number {
  const r = Math.max(p2 / p1, (2 / (GAMMA + 1)) ** (GAMMA / (GAMMA - 1)));
  return p1 * Math.sqrt(((2 * GAMMA) / ((GAMMA - 1) * R * temperature)) * (r ** (2 / GAMMA) - r ** ((GAMMA + 1) / GAMMA)));
}

export interface HiddenCharge {
  /** Share of the metered flow lost at the point of most boost */
  readonly lost: number;
  /** Diameter of that hole as a sharp-edged one, m */
  readonly diameter: number;
}

/** A simulated log and what is hidden in it: residual gas by cylinder filling (Taylor 1985), breathing waves over speed. */
export function boostLog(
  seed: number,
  lossOf: (noise: ReturnType<typeof seededNoise>) => number,
): { log: BoostLog; truth: HiddenCharge } {
  const noise = seededNoise(seed);
  const diesel = noise.uniform() < 0.5;
  const displacement = noise.uniform(1.0, 3.0) * 1e-3;
  const ambient = noise.uniform(92e3, 102e3);
  const base = diesel ? 0.88 + noise.normal(0.035) : 0.85 + noise.normal(0.045);
  const compression = diesel ? noise.uniform(15.5, 18) : noise.uniform(9, 10.8);
  const [amplitude, phase, wave] = [noise.uniform(0.02, 0.06), noise.uniform(0, 2 * Math.PI), noise.uniform(3000, 6000)];
  const tilt = noise.uniform(-0.02, 0.02);
  const gain = 1 + noise.normal(0.02);
  const [ratioLow, ratioHigh] = [noise.uniform(1, 1.25), noise.uniform(1.1, 1.4)];
  const redline = diesel ? 4200 : 5600;
  const count = Math.round(noise.uniform(15, 40));
  const most = ambient + noise.uniform(60e3, 130e3);
  const rows = Array.from({ length: count }, (_, i) => {
    const under = i % 3 !== 0;
    const rpm = noise.uniform(1300, redline - 800);
    const map = under
      ? i === 1
        ? most
        : noise.uniform(ambient + 20e3, most)
      : noise.uniform(diesel ? 0.97 : 0.62, 1.02) * ambient;
    const temperature = (under ? noise.uniform(305, 330) : noise.uniform(295, 312)) + 0;
    const share = Math.max(0, (map - ambient) / (most - ambient));
    const exhaust = under ? map * (ratioLow + (ratioHigh - ratioLow) * share) : ambient * (1.01 + 0.04 * (rpm / redline));
    const speed = 1 + amplitude * Math.sin((2 * Math.PI * rpm) / wave + phase) + tilt * (rpm / redline - 0.5);
    const filling = 1 - (exhaust / map - 1) / (GAMMA * (compression - 1));
    const breathed = ((base * speed * filling * map) / (R * temperature)) * ((displacement * rpm) / 120);
    return { rpm, map, charge: under ? map + noise.uniform(0, 3e3) : ambient + noise.normal(60), temperature, breathed };
  });
  const top = rows.reduce((a, b) => (b.charge > a.charge ? b : a));
  const lost = lossOf(noise);
  const area = ((lost / (1 - lost)) * top.breathed) / nozzle(top.charge, ambient, top.temperature);
  const points = rows.map((p) => {
    const leak = p.charge > ambient ? area * nozzle(p.charge, ambient, p.temperature) : 0;
    return {
      rpm: p.rpm + noise.normal(5),
      map: p.map + noise.normal(500),
      charge: p.charge + noise.normal(500),
      maf: (p.breathed + leak) * gain * (1 + noise.normal(0.005)),
      chargeTemperature: p.temperature + noise.normal(1.5),
    };
  });
  return {
    log: { ambient, fuel: diesel ? "diesel" : "petrol", displacement, egr: "shut", points },
    truth: { lost, diameter: Math.sqrt((4 * area) / (Math.PI * 0.61)) },
  };
}

export interface BoostTrial {
  readonly logs: number;
  /** Of those that lose this much: the share whose leak was named */
  readonly namedFrom6: number;
  readonly namedAt4: number;
  readonly within20: number;
  /** Of all intervals that were given: the share that holds the truth */
  readonly covered: number;
  readonly falseAlarms: number;
}

/** Simulated logs with a known hole, judged blind. */
export function boostTrial(count: number, seed: number): BoostTrial {
  const run = (n: number, from: number, lossOf: Parameters<typeof boostLog>[1]) =>
    Array.from({ length: n }, (_, i) => {
      const { log, truth } = boostLog(from + i, lossOf);
      const judged = judgeBoost(log);
      return { truth, judged, named: judged.shapes[0]?.id === "leak-after-meter" };
    });
  const any = run(count, seed, (noise) => noise.uniform(0, 0.12));
  const four = run(count, seed + 10_000, () => 0.04);
  const sound = run(count, seed + 20_000, () => 0);
  const big = any.filter((r) => r.truth.lost >= 0.06);
  const share = <T>(list: readonly T[], is: (one: T) => boolean) => list.filter(is).length / Math.max(1, list.length);
  const sized = any.filter((r) => r.judged.hole);
  return {
    logs: any.length,
    namedFrom6: share(big, (r) => r.named),
    namedAt4: share(four, (r) => r.named),
    within20: share(
      big.filter((r) => r.judged.hole),
      (r) => Math.abs((r.judged.hole?.diameter ?? 0) / r.truth.diameter - 1) <= 0.2,
    ),
    covered: share([...sized, ...four.filter((r) => r.judged.hole)], (r) => {
      const h = r.judged.hole;
      return h !== null && h.low <= r.truth.diameter && r.truth.diameter <= h.high;
    }),
    falseAlarms: share(sound, (r) => r.named),
  };
}
