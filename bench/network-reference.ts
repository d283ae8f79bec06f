/**
 * Stores solutions of the reference networks, made apart from the solver they test: Radau IIA with three stages (order 5), Newton on
 * all stages with a Jacobian by differences, step doubling to 1e-10, laws written anew from the equations. Rarely run:
 * `npx tsx bench/network-reference.ts` writes bench/network-reference.json.
 */
import { writeFileSync } from "node:fs";
import type { JointLaw } from "@/core/gas/network/joints";
import { REFERENCE_CASES, type ReferenceCase } from "./network-cases";

const GAMMA = 1.4;
const R = 287.05;
const CV = R / (GAMMA - 1);
const TOLERANCE = 1e-10;
/** Pressure difference below which the orifice is blended, Pa. */
const BLEND = 5;

/** ψ² of an orifice: isentropic nozzle flow with its critical limit (ISO 6358-1). */
function squared(p1: number, p2: number, t: number): number {
  const r = Math.max(p2 / p1, (2 / (GAMMA + 1)) ** (GAMMA / (GAMMA - 1)));
  return ((2 * GAMMA) / ((GAMMA - 1) * R * t)) * p1 * p1 * (r ** (2 / GAMMA) - r ** ((GAMMA + 1) / GAMMA));
}
function flux(p1: number, p2: number, t: number): number {
  const s = squared(p1, p2, t);
  const e = squared(p1, p1 - BLEND, t);
  return s / (s * s + e * e) ** 0.25;
}

function flowOf(law: JointLaw, p1: number, t1: number, p2: number, t2: number): number {
  switch (law.type) {
    case "orifice":
      return law.effectiveArea * (p1 >= p2 ? flux(p1, p2, t1) : -flux(p2, p1, t2));
    case "one-way":
      return p1 >= p2 ? law.effectiveArea * flux(p1, p2, t1) : 0;
    case "pipe":
      return ((p1 - p2) / law.resistance) * (p1 >= p2 ? p1 / (R * t1) : p2 / (R * t2));
    case "pump":
      return law.maxFlow * Math.max(0, 1 - Math.max(0, p2 - p1) / law.stallPressure);
    case "regulator": {
      const band = Math.max(1, 0.01 * Math.abs(law.setPressure - p1));
      const x = Math.min(1, Math.max(0, (law.setPressure - p2) / band));
      return law.maxFlow * (3 * x * x - 2 * x * x * x);
    }
    case "sweep":
      return (law.rate * p1) / (R * t1);
  }
}

/** Rates of masses and energies of a case under these laws. */
function ratesOf({ spec }: ReferenceCase, laws: readonly JointLaw[]): (y: Float64Array) => Float64Array {
  const n = spec.zones.length;
  const at = new Map(spec.zones.map((z, i) => [z.id, i]));
  return (y) => {
    const out = new Float64Array(2 * n);
    const state = (id: string): [number, number] => {
      const i = at.get(id);
      if (i === undefined) return [spec.ambient, spec.temperature];
      const volume = spec.zones[i]?.volume as number;
      return [((GAMMA - 1) * (y[n + i] as number)) / volume, (y[n + i] as number) / ((y[i] as number) * CV)];
    };
    spec.joints.forEach((j, k) => {
      const [p1, t1] = state(j.from);
      const [p2, t2] = state(j.to);
      const m = flowOf(laws[k] as JointLaw, p1, t1, p2, t2);
      const heat = m * GAMMA * CV * (m >= 0 ? t1 : t2);
      for (const [id, sign] of [
        [j.from, -1],
        [j.to, 1],
      ] as const) {
        const i = at.get(id);
        if (i === undefined) continue;
        out[i] = (out[i] as number) + sign * m;
        out[n + i] = (out[n + i] as number) + sign * heat;
      }
    });
    spec.zones.forEach((z, i) => {
      if (z.wallTime)
        out[n + i] = (out[n + i] as number) + ((y[i] as number) * CV * z.temperature - (y[n + i] as number)) / z.wallTime;
    });
    return out;
  };
}

const Q = Math.sqrt(6);
const A = [
  [(88 - 7 * Q) / 360, (296 - 169 * Q) / 1800, (-2 + 3 * Q) / 225],
  [(296 + 169 * Q) / 1800, (88 + 7 * Q) / 360, (-2 - 3 * Q) / 225],
  [(16 - Q) / 36, (16 + Q) / 36, 1 / 9],
] as const;

/** Gauss elimination with pivoting. */
function solve(a: number[][], b: number[]): number[] {
  const n = b.length;
  for (let k = 0; k < n; k++) {
    let p = k;
    for (let i = k; i < n; i++) if (Math.abs(a[i]?.[k] as number) > Math.abs(a[p]?.[k] as number)) p = i;
    [a[k], a[p]] = [a[p] as number[], a[k] as number[]];
    [b[k], b[p]] = [b[p] as number, b[k] as number];
    for (let i = k + 1; i < n; i++) {
      const f = (a[i]?.[k] as number) / (a[k]?.[k] as number);
      if (f === 0) continue;
      for (let j = k; j < n; j++) (a[i] as number[])[j] = (a[i]?.[j] as number) - f * (a[k]?.[j] as number);
      b[i] = (b[i] as number) - f * (b[k] as number);
    }
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let j = i + 1; j < n; j++) b[i] = (b[i] as number) - (a[i]?.[j] as number) * (b[j] as number);
    b[i] = (b[i] as number) / (a[i]?.[i] as number);
  }
  return b;
}

/** One step of Radau IIA; undefined where Newton does not get there. */
function radau(f: (y: Float64Array) => Float64Array, y: Float64Array, h: number): Float64Array | undefined {
  const n = y.length;
  const f0 = f(y);
  const jacobian = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  for (let j = 0; j < n; j++) {
    const d = 1e-7 * Math.abs(y[j] as number);
    const up = Float64Array.from(y);
    up[j] = (up[j] as number) + d;
    const fu = f(up);
    for (let i = 0; i < n; i++) (jacobian[i] as number[])[j] = ((fu[i] as number) - (f0[i] as number)) / d;
  }
  const z = new Array<number>(3 * n).fill(0);
  for (let turn = 0; turn < 30; turn++) {
    const stages = [0, 1, 2].map((s) => f(y.map((v, i) => v + (z[s * n + i] as number))));
    const b = z.map((v, k) => {
      const s = Math.floor(k / n);
      const i = k % n;
      return -v + h * [0, 1, 2].reduce((sum, c) => sum + (A[s]?.[c] as number) * (stages[c]?.[i] as number), 0);
    });
    const m = Array.from({ length: 3 * n }, (_, r) =>
      Array.from({ length: 3 * n }, (_, c) => {
        const part = -h * (A[Math.floor(r / n)]?.[Math.floor(c / n)] as number) * (jacobian[r % n]?.[c % n] as number);
        return (r === c ? 1 : 0) + part;
      }),
    );
    const d = solve(m, b);
    let worst = 0;
    for (let k = 0; k < 3 * n; k++) {
      z[k] = (z[k] as number) + (d[k] as number);
      worst = Math.max(worst, Math.abs(d[k] as number) / (y[k % n] as number));
    }
    if (worst < 1e-14) return y.map((v, i) => v + (z[2 * n + i] as number));
    if (!Number.isFinite(worst)) return undefined;
    if (turn === 29 && worst < 1e-12) return y.map((v, i) => v + (z[2 * n + i] as number));
  }
  return undefined;
}

/** On from `from` to `to` by steps that are halved where twice half of one differs by more than the tolerance. */
function integrate(f: (y: Float64Array) => Float64Array, start: Float64Array, from: number, to: number): Float64Array {
  let y = start;
  let t = from;
  let h = Math.min(1e-5, to - from);
  while (t < to) {
    h = Math.min(h, to - t);
    const whole = radau(f, y, h);
    const half = whole && radau(f, y, h / 2);
    const twice = half && radau(f, half, h / 2);
    const error =
      twice && whole ? Math.max(...twice.map((v, i) => Math.abs(v - (whole[i] as number)) / (y[i] as number) / 31)) : 1;
    if (twice && error <= TOLERANCE) {
      y = twice;
      t = h === to - t ? to : t + h;
    } else if (h < 1e-12) throw new Error("The step vanished");
    h *= Math.min(4, Math.max(0.2, 0.9 * (TOLERANCE / Math.max(error, 1e-16)) ** (1 / 6)));
  }
  return y;
}

const solved = Object.fromEntries(
  Object.entries(REFERENCE_CASES).map(([name, one]) => {
    const { spec, events, times } = one;
    const n = spec.zones.length;
    const laws = spec.joints.map((j) => j.law);
    let y = new Float64Array(2 * n);
    spec.zones.forEach((z, i) => {
      y[i] = (z.pressure * z.volume) / (R * z.temperature);
      y[n + i] = (z.pressure * z.volume) / (GAMMA - 1);
    });
    let t = 0;
    const rows = [];
    for (const at of [...new Set([...times, ...events.map((e) => e.at)])].toSorted((a, b) => a - b)) {
      y = integrate(ratesOf(one, laws), y, t, at) as Float64Array<ArrayBuffer>;
      t = at;
      for (const e of events) if (e.at === at) laws[e.joint] = e.law;
      if (!times.includes(at)) continue;
      const pressures = spec.zones.map((z, i) => Number((((GAMMA - 1) * (y[n + i] as number)) / z.volume).toPrecision(11)));
      const temperatures = spec.zones.map((_, i) => Number(((y[n + i] as number) / ((y[i] as number) * CV)).toPrecision(9)));
      rows.push({ t: at, pressures, temperatures });
    }
    console.log(name, rows.length);
    return [name, rows];
  }),
);
writeFileSync("bench/network-reference.json", `${JSON.stringify(solved, null, 1)}\n`);
