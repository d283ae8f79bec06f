import { SparseLu } from "../../maths/lu";
import { GAMMA, R_AIR } from "../air";
import { type JointFlow, type JointLaw, jointFlow, stillJoint } from "./joints";

/** A volume of gas. SI. */
export interface NetworkZone {
  readonly id: string;
  readonly volume: number;
  /** Pa absolute and K, at the start */
  readonly pressure: number;
  readonly temperature: number;
  /** Walls at the starting temperature draw the gas to it with this time constant, s; none where left out: no heat goes */
  readonly wallTime?: number;
}

export interface NetworkJoint {
  readonly id: string;
  /** Ids of zones; OUTSIDE has a pressure and a temperature that never change */
  readonly from: string;
  readonly to: string;
  readonly law: JointLaw;
}

export const OUTSIDE = "outside";

export interface NetworkSpec {
  /** Pa absolute and K */
  readonly ambient: number;
  readonly temperature: number;
  readonly zones: readonly NetworkZone[];
  readonly joints: readonly NetworkJoint[];
  /** Every zone stays at its temperature */
  readonly isothermal?: boolean;
  /** Gas that is followed through the network: all gas of a zone, or all that passes a joint */
  readonly tracer?: string;
}

const CV = R_AIR / (GAMMA - 1);
const CP = GAMMA * CV;

/** Rodas3: four stages, third order with a second-order estimate, L-stable (Sandu et al. 1997, in the form of Hairer & Wanner 1996, IV.7). */
const STAGE = 0.5;
const C = [[], [4], [1, -1], [1, -1, -8 / 3]] as const;

/** First step after a start or an event, and the longest, s. */
const FIRST_STEP = 1e-4;
const LONGEST = 60;
/** With a tracer: its upwind is of first order in the step, s. */
const TRACER_STEP = 0.1;
/** Relative tolerance of a step. */
const TOLERANCE = 1e-5;
/** A step is not cut below this, s. */
const SHORTEST = 1e-10;
/** Steps of one stretch, beyond which it is given up. */
const MOST_STEPS = 2_000_000;
/** Flow that is as good as nothing beside a step's tolerance, Pa. */
const NOTHING = 1;

/**
 * A network of gas volumes and what ties them: masses (and energies) as the state, mass and energy balances by Rodas3 with an
 * analytic Jacobian. What passes each joint is integrated by the same stages and moves the masses, so that mass closes to rounding.
 * A tracer follows by implicit upwind on those transfers and stays within 0 and 1. Dry air as an ideal gas. Deterministic.
 * Throws RangeError for an unknown zone or volume that is none.
 */
export class Network {
  time = 0;
  /** kg that passed each joint since the start */
  readonly passed: Float64Array;
  /** Gas of each zone, kg and J; shares of the tracer */
  readonly mass: Float64Array;
  private readonly energy: Float64Array;
  readonly share: Float64Array;

  private readonly n: number;
  private readonly size: number;
  private readonly ends: Int32Array;
  private readonly laws: JointLaw[];
  /** Flows as they were evaluated last, and those that a step begins with */
  private flows: JointFlow[];
  private begins: JointFlow[];
  private readonly volumes: Float64Array;
  /** Of the walls, K and s; outside last */
  private readonly warmth: Float64Array;
  private readonly wallTimes: Float64Array;
  private readonly thermal: boolean;
  /** Mass and energy of next to no pressure */
  private readonly least: Float64Array;
  /** Source of the tracer: a joint, a zone, the air outside, none below 0 */
  private readonly sourceJoint: number;
  private readonly sourceZone: number;
  private readonly lu: SparseLu;
  private readonly traced: SparseLu;
  private readonly k: Float64Array[];
  private readonly passedK: Float64Array[];
  private readonly stageMass: Float64Array;
  private readonly stageEnergy: Float64Array;
  private readonly rate: Float64Array;
  private readonly step: Float64Array;
  /** Pressures and temperatures of every zone, outside last: as evaluated last, and as a step begins with */
  private pressures: Float64Array;
  private temperatures: Float64Array;
  private beginTemperatures: Float64Array;
  /** How both change along a stage */
  private readonly dPressure: Float64Array;
  private readonly dTemperature: Float64Array;
  private readonly mixed: Float64Array;
  private readonly before: Float64Array;
  private h = FIRST_STEP;

  constructor(private readonly spec: NetworkSpec) {
    const { zones, joints, isothermal } = spec;
    this.n = zones.length;
    this.size = isothermal ? this.n : 2 * this.n;
    const index = new Map(zones.map((z, i) => [z.id, i]));
    if (zones.some((z) => !(z.volume > 0))) throw new RangeError("Every zone has a volume above nothing");
    const at = (id: string) => {
      const i = id === OUTSIDE ? this.n : index.get(id);
      if (i === undefined) throw new RangeError(`There is no zone "${id}"`);
      return i;
    };
    this.ends = Int32Array.from(joints.flatMap((j) => [at(j.from), at(j.to)]));
    this.laws = joints.map((j) => j.law);
    this.flows = joints.map(stillJoint);
    this.begins = joints.map(stillJoint);
    this.thermal = !isothermal;
    this.least = Float64Array.from([
      ...zones.map((z) => (NOTHING * z.volume) / (R_AIR * z.temperature)),
      ...zones.map((z) => (NOTHING * z.volume) / (GAMMA - 1)),
    ]);
    this.volumes = Float64Array.from(zones, (z) => z.volume);
    this.warmth = Float64Array.from([...zones.map((z) => z.temperature), spec.temperature]);
    this.wallTimes = Float64Array.from(zones, (z) => z.wallTime ?? Number.POSITIVE_INFINITY);
    this.sourceJoint = joints.findIndex((j) => j.id === spec.tracer);
    this.sourceZone = spec.tracer === OUTSIDE ? this.n : (index.get(spec.tracer ?? "") ?? -1);
    this.mass = Float64Array.from(zones, (z) => (z.pressure * z.volume) / (R_AIR * z.temperature));
    this.energy = Float64Array.from(zones, (z, i) => (this.mass[i] as number) * CV * z.temperature);
    this.share = Float64Array.from(zones, (z) => (z.id === spec.tracer ? 1 : 0));
    this.passed = new Float64Array(joints.length);
    const tied = joints.flatMap((_, j) => {
      const [from, to] = [this.ends[2 * j] as number, this.ends[2 * j + 1] as number];
      return from < this.n && to < this.n ? [[from, to] as const, [to, from] as const] : [];
    });
    const alone = zones.map((_, i) => [i, i] as const);
    // Mass and energy of a zone hang on both of its own and of its neighbours'.
    const both = [...alone, ...tied].flatMap(([i, j]) =>
      [0, this.n].flatMap((down) => [0, this.n].map((across) => [i + down, j + across] as const)),
    );
    this.lu = new SparseLu(this.size, isothermal ? tied : both);
    this.traced = new SparseLu(this.n, tied);
    const vectors = (count: number, length: number) => Array.from({ length: count }, () => new Float64Array(length));
    this.k = vectors(4, this.size);
    this.passedK = vectors(4, joints.length);
    this.stageMass = new Float64Array(this.n);
    this.stageEnergy = new Float64Array(this.n);
    this.rate = new Float64Array(this.size);
    this.step = new Float64Array(joints.length);
    const [p, t, begin, dp, dt] = vectors(5, this.n + 1) as [
      Float64Array,
      Float64Array,
      Float64Array,
      Float64Array,
      Float64Array,
    ];
    [this.pressures, this.temperatures, this.beginTemperatures, this.dPressure, this.dTemperature] = [p, t, begin, dp, dt];
    this.mixed = new Float64Array(this.n);
    this.before = new Float64Array(this.n);
  }

  /** Another law for a joint, from now on: the next step is a first one again. */
  set(joint: number, law: JointLaw): void {
    this.laws[joint] = law;
    this.h = FIRST_STEP;
  }

  lawOf = (joint: number): JointLaw => this.laws[joint] as JointLaw;

  /** K */
  temperature(zone: number, mass = this.mass, energy = this.energy): number {
    if (zone === this.n || !this.thermal) return this.warmth[zone] as number;
    return (energy[zone] as number) / ((mass[zone] as number) * CV);
  }

  /** Pa absolute */
  pressure(zone: number, mass = this.mass, energy = this.energy): number {
    if (zone === this.n) return this.spec.ambient;
    const volume = this.volumes[zone] as number;
    if (!this.thermal) return ((mass[zone] as number) * R_AIR * (this.warmth[zone] as number)) / volume;
    return ((GAMMA - 1) * (energy[zone] as number)) / volume;
  }

  /** kg/s through each joint as things stand. */
  flowsNow(): readonly JointFlow[] {
    this.evaluate(this.mass, this.energy);
    return this.flows;
  }

  /** On to this time, s. Throws RangeError where it moves too fast to be followed. */
  advance(until: number): void {
    for (let tries = 0; this.time < until; tries++) {
      if (tries > MOST_STEPS)
        throw new RangeError(`After ${this.time} s this network moves too fast to be followed: look for a tiny zone`);
      const left = until - this.time;
      const longest = this.spec.tracer === undefined ? LONGEST : TRACER_STEP;
      const wanted = Math.min(this.h, longest);
      // A sliver before the end is not left for a step of its own.
      const h = left <= wanted * 1.0001 ? left : left < 2 * wanted ? left / 2 : wanted;
      const error = this.attempt(h);
      if (error <= 1 || h <= SHORTEST) {
        this.accept(h);
        this.time = h === left ? until : this.time + h;
        const grown = h * Math.min(5, 0.9 * Math.max(error, 1e-6) ** (-1 / 3));
        // A step that the end cut short says nothing of how long the next may be.
        this.h = h < wanted ? Math.max(grown, Math.min(this.h, wanted)) : grown;
      } else this.h = h * Math.max(0.1, 0.9 * error ** (-1 / 3));
    }
  }

  /** Flows of all joints, and the rates of mass and energy they make. */
  private evaluate(mass: Float64Array, energy: Float64Array): void {
    const { n, ends, laws, flows, rate, pressures, temperatures } = this;
    rate.fill(0);
    for (let i = 0; i <= n; i++) {
      pressures[i] = this.pressure(i, mass, energy);
      temperatures[i] = this.temperature(i, mass, energy);
    }
    const { thermal, warmth, wallTimes } = this;
    for (let j = 0; j < laws.length; j++) {
      const from = ends[2 * j] as number;
      const to = ends[2 * j + 1] as number;
      const t1 = temperatures[from] as number;
      const t2 = temperatures[to] as number;
      const flow = flows[j] as JointFlow;
      jointFlow(laws[j] as JointLaw, pressures[from] as number, t1, pressures[to] as number, t2, flow);
      if (from < n) rate[from] = (rate[from] as number) - flow.flow;
      if (to < n) rate[to] = (rate[to] as number) + flow.flow;
      if (!thermal) continue;
      const heat = flow.flow * CP * (flow.flow >= 0 ? t1 : t2);
      if (from < n) rate[n + from] = (rate[n + from] as number) - heat;
      if (to < n) rate[n + to] = (rate[n + to] as number) + heat;
    }
    if (thermal)
      for (let i = 0; i < n; i++) {
        const drawn = (mass[i] as number) * CV * (warmth[i] as number) - (energy[i] as number);
        rate[n + i] = (rate[n + i] as number) + drawn / (wallTimes[i] as number);
      }
  }

  /**
   * 1/(γh) − J at the state, from the flows evaluated there. Each joint's flow hangs on the masses and energies of its two ends:
   * p = (γ−1)·U/V, T = U/(m·cv); isothermal p = m·R·T/V.
   */
  private buildMatrix(h: number): void {
    const { n, size, ends, begins: flows, mass, lu, thermal, volumes, wallTimes, beginTemperatures: warm } = this;
    const { a } = lu;
    a.fill(0);
    for (let i = 0; i < size; i++) a[i * size + i] = 1 / (STAGE * h);
    for (let j = 0; j < flows.length; j++) {
      const from = ends[2 * j] as number;
      const to = ends[2 * j + 1] as number;
      const flow = flows[j] as JointFlow;
      const upstream = flow.flow >= 0 ? from : to;
      const warmth = thermal ? CP * (warm[upstream] as number) : 0;
      for (let side = 0; side < 2; side++) {
        const end = side === 0 ? from : to;
        if (end === n) continue;
        const byP = side === 0 ? flow.byFrom : flow.byTo;
        const byT = side === 0 ? flow.byFromTemperature : flow.byToTemperature;
        const volume = volumes[end] as number;
        if (!thermal) {
          const byMass = (byP * R_AIR * (warm[end] as number)) / volume;
          if (from < n) this.lessens(from, end, -byMass);
          if (to < n) this.lessens(to, end, byMass);
          continue;
        }
        const t = warm[end] as number;
        const m = mass[end] as number;
        const byMass = (-byT * t) / m;
        const byEnergy = (byP * (GAMMA - 1)) / volume + byT / (m * CV);
        // Heat carried: cp·T·ṁ, T of the higher side.
        const carried = end === upstream ? flow.flow * CP : 0;
        const heatByMass = warmth * byMass - (carried * t) / m;
        const heatByEnergy = warmth * byEnergy + carried / (m * CV);
        if (from < n) {
          this.lessens(from, end, -byMass);
          this.lessens(from, n + end, -byEnergy);
          this.lessens(n + from, end, -heatByMass);
          this.lessens(n + from, n + end, -heatByEnergy);
        }
        if (to < n) {
          this.lessens(to, end, byMass);
          this.lessens(to, n + end, byEnergy);
          this.lessens(n + to, end, heatByMass);
          this.lessens(n + to, n + end, heatByEnergy);
        }
      }
    }
    if (thermal)
      for (let i = 0; i < n; i++) {
        this.lessens(n + i, i, (CV * (this.warmth[i] as number)) / (wallTimes[i] as number));
        this.lessens(n + i, n + i, -1 / (wallTimes[i] as number));
      }
    lu.factor();
  }

  /** Takes an entry of J out of the matrix of a step. */
  private lessens(row: number, column: number, value: number): void {
    const { a } = this.lu;
    const at = row * this.size + column;
    a[at] = (a[at] as number) - value;
  }

  /** How pressures and temperatures change along a change of the state, from where the step begins. */
  private alongStage(change: Float64Array): void {
    const { n, mass, volumes, thermal, beginTemperatures: warm, dPressure, dTemperature } = this;
    for (let i = 0; i < n; i++) {
      const t = warm[i] as number;
      if (thermal) {
        const dU = change[n + i] as number;
        dPressure[i] = ((GAMMA - 1) * dU) / (volumes[i] as number);
        dTemperature[i] = (dU / CV - t * (change[i] as number)) / (mass[i] as number);
      } else dPressure[i] = (R_AIR * t * (change[i] as number)) / (volumes[i] as number);
    }
  }

  /** The stages of a step, into `k` and `passedK`; @returns its error as a share of what is allowed. */
  private attempt(h: number): number {
    const { n, size, ends, k, passedK, mass, energy, rate, stageMass, stageEnergy, thermal, dPressure, dTemperature } = this;
    this.evaluate(mass, energy);
    // The later stages write into the others.
    [this.begins, this.flows] = [this.flows, this.begins];
    [this.beginTemperatures, this.temperatures] = [this.temperatures, this.beginTemperatures];
    this.buildMatrix(h);
    for (let s = 0; s < 4; s++) {
      if (s >= 2) {
        // y + 2·k₁, and with k₃ besides for the last.
        const third = s === 3 ? (k[2] as Float64Array) : undefined;
        for (let i = 0; i < n; i++) {
          stageMass[i] = (mass[i] as number) + 2 * ((k[0] as Float64Array)[i] as number) + (third ? (third[i] as number) : 0);
          stageEnergy[i] = !thermal
            ? (energy[i] as number)
            : (energy[i] as number) + 2 * ((k[0] as Float64Array)[n + i] as number) + (third ? (third[n + i] as number) : 0);
          if (!((stageMass[i] as number) > 0) || !((stageEnergy[i] as number) > 0)) return 1e3;
        }
        this.evaluate(stageMass, stageEnergy);
      }
      const stage = k[s] as Float64Array;
      const c = C[s] as readonly number[];
      for (let i = 0; i < size; i++) {
        let sum = rate[i] as number;
        for (let e = 0; e < s; e++) sum += ((c[e] as number) * ((k[e] as Float64Array)[i] as number)) / h;
        stage[i] = sum;
      }
      this.lu.solve(stage);
      const passing = passedK[s] as Float64Array;
      const flows = s >= 2 ? this.flows : this.begins;
      this.alongStage(stage);
      for (let j = 0; j < flows.length; j++) {
        const from = ends[2 * j] as number;
        const to = ends[2 * j + 1] as number;
        const slopes = this.begins[j] as JointFlow;
        let sum =
          (flows[j] as JointFlow).flow +
          slopes.byFrom * (dPressure[from] as number) +
          slopes.byTo * (dPressure[to] as number) +
          slopes.byFromTemperature * (dTemperature[from] as number) +
          slopes.byToTemperature * (dTemperature[to] as number);
        for (let e = 0; e < s; e++) sum += ((c[e] as number) * ((passedK[e] as Float64Array)[j] as number)) / h;
        passing[j] = STAGE * h * sum;
      }
    }
    let worst = 0;
    const last = k[3] as Float64Array;
    for (let i = 0; i < size; i++) {
      const scale =
        i < n ? (mass[i] as number) + (this.least[i] as number) : (energy[i - n] as number) + (this.least[i] as number);
      worst = Math.max(worst, Math.abs(last[i] as number) / scale);
    }
    return Number.isFinite(worst) ? worst / TOLERANCE : 1e3;
  }

  /** Moves what passed each joint, and the heat that went with it. */
  private accept(h: number): void {
    const { n, ends, k, passedK, step, mass, energy, passed } = this;
    const weight = (list: readonly Float64Array[], i: number) =>
      2 * ((list[0] as Float64Array)[i] as number) +
      ((list[2] as Float64Array)[i] as number) +
      ((list[3] as Float64Array)[i] as number);
    for (let j = 0; j < step.length; j++) {
      const moved = weight(passedK, j);
      step[j] = moved;
      passed[j] = (passed[j] as number) + moved;
      const [from, to] = [ends[2 * j] as number, ends[2 * j + 1] as number];
      if (from < n) mass[from] = (mass[from] as number) - moved;
      if (to < n) mass[to] = (mass[to] as number) + moved;
    }
    if (this.thermal) for (let i = 0; i < n; i++) energy[i] = (energy[i] as number) + weight(k, n + i);
    if (this.spec.tracer !== undefined && h > 0) this.mix();
  }

  /** Tracer by implicit upwind: c·m at the end is c·m at the start, what came in at the end's share of where it came from, less what went. */
  private mix(): void {
    const { n, ends, step, mass, share, traced, mixed, before, sourceJoint, sourceZone } = this;
    const { a } = traced;
    a.fill(0);
    mixed.fill(0);
    // Mass before the step: after it, less what the joints brought.
    before.set(mass);
    for (let i = 0; i < n; i++) a[i * n + i] = mass[i] as number;
    for (let j = 0; j < step.length; j++) {
      const back = (step[j] as number) < 0;
      const amount = Math.abs(step[j] as number);
      const from = ends[back ? 2 * j + 1 : 2 * j] as number;
      const to = ends[back ? 2 * j : 2 * j + 1] as number;
      if (from < n) {
        before[from] = (before[from] as number) + amount;
        a[from * n + from] = (a[from * n + from] as number) + amount;
      }
      if (to === n) continue;
      before[to] = (before[to] as number) - amount;
      if (j === sourceJoint || (from === n && sourceZone === n)) mixed[to] = (mixed[to] as number) + amount;
      else if (from < n) a[to * n + from] = (a[to * n + from] as number) - amount;
    }
    for (let i = 0; i < n; i++) mixed[i] = (mixed[i] as number) + (before[i] as number) * (share[i] as number);
    if (sourceZone >= 0 && sourceZone < n) {
      // A zone that is the source stays all tracer.
      a.fill(0, sourceZone * n, (sourceZone + 1) * n);
      a[sourceZone * n + sourceZone] = 1;
      mixed[sourceZone] = 1;
    }
    traced.factor();
    traced.solve(mixed);
    for (let i = 0; i < n; i++) share[i] = Math.min(1, Math.max(0, mixed[i] as number));
  }
}
