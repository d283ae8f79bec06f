import { judgePulldown, type PulldownRecord } from "@/core/checks/pulldown";
import { contextOf, VAPOUR } from "@/core/core.fixture";
import { seededNoise } from "@/core/maths/random";
import { vapourVolume } from "@/core/vehicle";

const R = 287.05;
/** Flow through a sharp edge, kg/s, by Bernoulli with the density before it; either way. */
const edge = (from: number, to: number, t: number, diameter: number) => {
  const drop = from - to;
  const density = Math.max(from, to) / (R * t);
  return Math.sign(drop) * 0.61 * 0.25 * Math.PI * diameter ** 2 * Math.sqrt(2 * density * Math.abs(drop));
};

/** A pull-down as a scan tool shows it, a reading each so many seconds: purge and vent move a moment after they are told. */
function pulledDown(seed: number, spacing: number, hole: number): PulldownRecord {
  const noise = seededNoise(seed);
  const context = contextOf(VAPOUR);
  const fuelLevel = Math.round(noise.uniform(20, 75));
  const volume = vapourVolume(VAPOUR.evap as NonNullable<typeof VAPOUR.evap>, fuelLevel / 100).volume * noise.uniform(0.92, 1.08);
  const ambient = noise.uniform(95e3, 102e3);
  const temperature = noise.uniform(285, 300);
  const asked = context.limits.evapPullDown.value;
  const at = { ventShutAt: 4, purgeOpenAt: 4 + noise.uniform(9, 14), purgeShutAt: 0, ventOpenAt: 0 };
  const purge = noise.uniform(1.2e-4, 3e-4);
  const late = { purge: noise.uniform(0.1, 0.6), vent: noise.uniform(0.1, 0.8) };
  const wall = noise.uniform(15, 35);
  const boils = noise.uniform(0, 0.35);
  let [p, gas, t, due] = [ambient, temperature, 0, noise.uniform(0, spacing)];
  const points: [number, number][] = [];
  let done = false;
  const dt = 0.02;
  const depth = asked * noise.uniform(1.05, 1.25);
  const hold = noise.uniform(30, 45);
  for (; t < 200; t += dt) {
    if (!at.purgeShutAt && p <= ambient - depth) at.purgeShutAt = t;
    if (at.purgeShutAt && !at.ventOpenAt && t >= at.purgeShutAt + hold) at.ventOpenAt = t;
    const purging = t > at.purgeOpenAt + late.purge && !(at.purgeShutAt && t > at.purgeShutAt + late.purge);
    const open = t < at.ventShutAt + late.vent || (at.ventOpenAt > 0 && t > at.ventOpenAt + late.vent);
    const into = (open ? edge(ambient, p, temperature, 6e-3) : 0) + edge(ambient, p, temperature, hole) - (purging ? purge : 0);
    const mass = (p * volume) / (R * gas);
    const dm = into * dt;
    // What leaves cools what stays; walls give it back.
    gas += (0.4 * gas * dm) / mass - ((gas - temperature) / wall) * dt;
    p = ((mass + dm) * R * gas) / volume + boils * dt;
    if (t >= due) {
      points.push([Math.round(t * 10) / 10, Math.round((p - ambient + noise.normal(4)) / 5) * 5]);
      due += spacing;
    }
    if (at.ventOpenAt && t > at.ventOpenAt + 25) {
      done = true;
      break;
    }
  }
  if (!done) throw new Error("it was never pulled down");
  const told = (moment: number) => Math.round((moment + noise.normal(0.15)) * 10) / 10;
  return {
    vent: { by: "plug" },
    fuelLevel,
    unit: "Pa",
    points,
    ventShutAt: told(at.ventShutAt),
    purgeOpenAt: told(at.purgeOpenAt),
    purgeShutAt: told(at.purgeShutAt),
    ventOpenAt: told(at.ventOpenAt),
    idled: true,
    source: { kind: "typed" },
    required: { size: { value: 1.016, unit: "mm" }, source: "criteria of P0442" },
    ambient: { value: ambient / 100, unit: "hPa", kind: "absolute" },
    temperature: { value: temperature - 273.15, unit: "°C" },
  };
}

/** Share of tight systems called leaking, and of holes of 1.6 mm passed, at a spacing of readings, s. */
export function pulldownOutside(spacing: number, count: number, seed: number) {
  const context = contextOf(VAPOUR);
  const judged = (hole: number, from: number) =>
    Array.from({ length: count }, (_, i) => judgePulldown(pulledDown(from + i, spacing, hole), context));
  const tight = judged(0, seed);
  const holed = judged(1.6e-3, seed + 50_000);
  return {
    tightFails: tight.filter((v) => v.outcome === "fail").length / count,
    tightPasses: tight.filter((v) => v.outcome === "pass").length / count,
    holesPass: holed.filter((v) => v.outcome === "pass").length / count,
    holesFail: holed.filter((v) => v.outcome === "fail").length / count,
  };
}
