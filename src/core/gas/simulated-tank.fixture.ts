/**
 * A tank simulated apart from the fit it tests: mass and energy balance by small explicit steps, from the fill through
 * the hold to the decay. Walls may yield: V = V₀ + k·(p − p_amb) with p_amb·k = `compliance`·V₀. SI; drift in K over the
 * decay, `bend` the part of it that is not linear, K.
 */
export function simulateTank(truth: {
  volume: number;
  diameter: number;
  extraHole?: number;
  wallTime: number;
  held: number;
  drift: number;
  bend?: number;
  compliance?: number;
  pressure: number;
  ambient: number;
  temperature: number;
  duration: number;
  every: number;
}): { times: number[]; pressures: number[] } {
  const R = 287.05;
  const g = 1.4;
  const h = 0.02;
  const { ambient, temperature: outside, wallTime, bend = 0 } = truth;
  const yielding = ((truth.compliance ?? 0) * truth.volume) / ambient;
  const area = 0.61 * (Math.PI / 4) * (truth.diameter ** 2 + (truth.extraHole ?? 0) ** 2);
  const flux = (p: number, t: number) => {
    const r = ambient / p;
    return p > ambient ? p * Math.sqrt(((2 * g) / ((g - 1) * R * t)) * (r ** (2 / g) - r ** ((g + 1) / g))) : 0;
  };
  const enthalpy = (g * R) / (g - 1);
  const volumeAt = (p: number) => truth.volume + yielding * (p - ambient);
  let p = ambient;
  let t = outside;
  let mass = (p * truth.volume) / (R * t);
  const step = (target: number | undefined, wall: number, leak: number) => {
    const out = leak * flux(p, t) * h;
    const given = ((mass * R) / (g - 1)) * (-(t - wall) / wallTime) * h - enthalpy * t * out;
    // What a change of pressure takes: internal energy of gas in a volume that follows it, and the work on the walls.
    const perPascal = (volumeAt(p) + p * yielding) / (g - 1) + p * yielding;
    const inflow = target === undefined ? 0 : ((target - p) * perPascal - given) / (enthalpy * outside);
    mass += inflow - out;
    p += (given + enthalpy * outside * inflow) / perPascal;
    t = (p * volumeAt(p)) / (mass * R);
  };
  for (let s = 0; s < 5; s += h) step(ambient + (truth.pressure * (s + h)) / 5, outside, area);
  for (let s = 0; s < truth.held; s += h) step(ambient + truth.pressure, outside, area);
  const times: number[] = [];
  const pressures: number[] = [];
  const count = Math.round(truth.duration / h);
  const stride = Math.round(truth.every / h);
  for (let i = 0; i <= count; i++) {
    if (i % stride === 0) {
      times.push(i * h);
      pressures.push(p - ambient);
    }
    const share = i / count;
    step(undefined, outside + truth.drift * share + bend * Math.sin(Math.PI * share), area);
  }
  return { times, pressures };
}

/**
 * A tank pulled down by the manifold through its purge valve, simulated apart from the reading it tests: mass and energy
 * balance by small explicit steps. SI; a hole of 0 is none.
 */
export function simulatePulldown(truth: {
  volume: number;
  leak: number;
  /** Hole of the vent shut, and open */
  ventShut: number;
  ventOpen: number;
  /** Hole of the purge valve open, and shut */
  purgeOpen: number;
  purgeShut: number;
  manifold: number;
  ambient: number;
  temperature: number;
  wallTime: number;
  phases: { ventShutAt: number; purgeOpenAt: number; purgeShutAt: number; ventOpenAt: number; end: number };
  every: number;
}): [seconds: number, gauge: number][] {
  const R = 287.05;
  const g = 1.4;
  const h = 0.01;
  const area = (d: number) => 0.61 * (Math.PI / 4) * d ** 2;
  const flux = (p1: number, p2: number, t: number): number => {
    if (p2 > p1) return -flux(p2, p1, t);
    const r = Math.max(p2 / p1, 0.52828);
    return p1 * Math.sqrt(((2 * g) / ((g - 1) * R * t)) * Math.max(0, r ** (2 / g) - r ** ((g + 1) / g)));
  };
  const enthalpy = (g * R) / (g - 1);
  const { ambient, temperature, volume, phases } = truth;
  let p = ambient;
  let t = temperature;
  const points: [number, number][] = [];
  const stride = Math.round(truth.every / h);
  for (let i = 0; i * h <= phases.end; i++) {
    const at = i * h;
    if (i % stride === 0) points.push([Math.round(at * 100) / 100, p - ambient]);
    const purge = at >= phases.purgeOpenAt && at < phases.purgeShutAt ? truth.purgeOpen : truth.purgeShut;
    const vent = at >= phases.ventShutAt && at < phases.ventOpenAt ? truth.ventShut : truth.ventOpen;
    const toAir = (area(truth.leak) + area(vent)) * flux(p, ambient, t);
    const toManifold = area(purge) * flux(p, truth.manifold, t);
    const out = Math.max(0, toAir) + Math.max(0, toManifold);
    const into = Math.max(0, -toAir) + Math.max(0, -toManifold);
    const mass = (p * volume) / (R * t);
    const heat = ((mass * R) / (g - 1)) * (-(t - temperature) / truth.wallTime) * h;
    const energy = (p * volume) / (g - 1) + heat + enthalpy * (temperature * into - t * out) * h;
    p = (energy * (g - 1)) / volume;
    t = (p * volume) / ((mass + (into - out) * h) * R);
  }
  return points;
}
