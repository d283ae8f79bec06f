/**
 * A tank simulated apart from the fit it tests: mass and energy balance by small explicit steps, from the fill through
 * the hold to the decay. SI; drift in K over the decay.
 */
export function simulateTank(truth: {
  volume: number;
  diameter: number;
  extraHole?: number;
  wallTime: number;
  held: number;
  drift: number;
  pressure: number;
  ambient: number;
  temperature: number;
  duration: number;
  every: number;
}): { times: number[]; pressures: number[] } {
  const R = 287.05;
  const g = 1.4;
  const h = 0.02;
  const { volume, ambient, temperature: outside, wallTime } = truth;
  const area = 0.61 * (Math.PI / 4) * (truth.diameter ** 2 + (truth.extraHole ?? 0) ** 2);
  const flux = (p: number, t: number) => {
    const r = ambient / p;
    return p > ambient ? p * Math.sqrt(((2 * g) / ((g - 1) * R * t)) * (r ** (2 / g) - r ** ((g + 1) / g))) : 0;
  };
  const enthalpy = (g * R) / (g - 1);
  let p = ambient;
  let t = outside;
  let mass = (p * volume) / (R * t);
  const step = (target: number | undefined, wall: number, leak: number) => {
    const out = leak * flux(p, t) * h;
    const heat = ((mass * R) / (g - 1)) * (-(t - wall) / wallTime) * h;
    const energy = (p * volume) / (g - 1) + heat - enthalpy * t * out;
    const inflow = target === undefined ? 0 : ((target * volume) / (g - 1) - energy) / (enthalpy * outside);
    mass += inflow - out;
    p = ((energy + enthalpy * outside * inflow) * (g - 1)) / volume;
    t = (p * volume) / (mass * R);
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
    step(undefined, outside + (truth.drift * i) / count, area);
  }
  return { times, pressures };
}
