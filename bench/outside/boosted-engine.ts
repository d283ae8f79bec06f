import { type Noise, seededNoise } from "@/core/maths/random";

/**
 * A supercharged engine driven about, as an instrument-less observer would simulate it: charge pipe and manifold as volumes, a
 * compressor speed line, clearance-volume filling (Heywood 1988, eq. 6.2 ff.), turbine back pressure, charge cooling with its
 * own heat, sensors with lag, offset and steps. It shares no equation, constant or code with the estimator that is tried on it.
 * SI throughout.
 */
export interface HiddenEngine {
  readonly diesel: boolean;
  /** Share of the compressor's flow that escapes at the boost asked, in the middle of the speeds */
  readonly lost: number;
  /** Meter reading over true flow */
  readonly meterGain: number;
  /** Share of the asked boost that lazy vanes let be made; 1 is sound */
  readonly vanes: number;
  /** Times the suction of a sound air filter */
  readonly filter: number;
  /** s */
  readonly temperatureLag: number;
  /** Only pulls of a few seconds, nothing else */
  readonly shortPulls: boolean;
  /** Breathing over what this engine had when it was sound */
  readonly breathes: number;
  /** Another drive of the same car, by a seed of its own */
  readonly drive?: number;
}

/** One reading of every channel; pressures Pa absolute. */
export interface LoggedRow {
  readonly time: number;
  readonly rpm: number;
  readonly map: number;
  readonly charge: number;
  readonly asked: number;
  readonly maf: number;
  readonly chargeTemperature: number;
  /** Percent of travel */
  readonly command: number;
  readonly position: number;
  /** Short- and long-term trim, share, of a petrol engine: the short one rests while the loop is open */
  readonly short: number;
  readonly long: number;
}

export interface BoostedDrive {
  readonly rows: readonly LoggedRow[];
  readonly ambient: number;
  readonly displacement: number;
  /** Effective area C_d·A of what leaks, m² */
  readonly area: number;
  /** Share of the flow that this area loses at the most boost of this drive */
  readonly lostAtMost: number;
}

const R = 287.05;
/** Step of the simulation, s, and how many of them a reading may lag. */
const DT = 2e-3;
const LATE = 128;
/** Flow through a nozzle by enthalpy drop (Saint-Venant & Wantzel), kg/(s·m²), laminar below a few hundred Pa. */
function nozzle(p1: number, p2: number, t: number): number {
  if (p2 > p1) return -nozzle(p2, p1, t);
  const ratio = Math.max(0.5283, p2 / p1);
  const drop = 1 - ratio ** (0.4 / 1.4);
  const speed = Math.sqrt(2 * 1004.7 * t * drop);
  const free = (p1 / (R * t)) * ratio ** (1 / 1.4) * speed;
  const gentle = (p1 - p2) / 300;
  return gentle < 1 ? free * Math.sqrt(gentle) * (2 - gentle) ** 0.5 : free;
}

/** What the driver does: seconds, engine speed at its beginning and end, pedal 0…1. */
type Stretch = readonly [seconds: number, from: number, to: number, pedal: number];

function driveOf(noise: Noise, { diesel, shortPulls }: HiddenEngine): readonly Stretch[] {
  const top = diesel ? 3800 : 5200;
  const pull = (seconds: number, pedal = 1): Stretch[] => [
    [seconds, noise.uniform(1500, 2000), top * noise.uniform(0.75, 0.98), pedal],
  ];
  const shift: Stretch = [noise.uniform(0.4, 0.8), 2600, 1900, 0];
  const cruise = (seconds: number): Stretch => {
    const rpm = noise.uniform(1500, 2500);
    return [seconds, rpm, rpm + noise.uniform(-100, 200), diesel ? noise.uniform(0.05, 0.25) : noise.uniform(0.12, 0.3)];
  };
  if (shortPulls)
    return Array.from({ length: 6 }, () => [cruise(4), ...pull(noise.uniform(2.5, 4.5)), shift] as Stretch[]).flat();
  return [
    [8, 800, 800, 0.03],
    cruise(16),
    ...pull(noise.uniform(5, 8)),
    shift,
    ...pull(noise.uniform(6, 9)),
    cruise(14),
    [noise.uniform(10, 14), noise.uniform(1700, 2000), noise.uniform(2300, 2800), noise.uniform(0.55, 0.75)],
    cruise(12),
    ...pull(noise.uniform(9, 12)),
    shift,
    ...pull(noise.uniform(5, 8), noise.uniform(0.7, 0.9)),
    cruise(15),
  ];
}

/** Simulates a drive with a hidden engine, and logs it at a scan tool's rate. */
export function boostedDrive(seed: number, hidden: HiddenEngine): BoostedDrive {
  let noise = seededNoise(seed);
  const { diesel } = hidden;
  const displacement = noise.uniform(1.0, 3.0) * 1e-3;
  const ambient = noise.uniform(90e3, 102.5e3);
  const outside = noise.uniform(268, 308);
  const boostMost = noise.uniform(60e3, diesel ? 130e3 : 110e3);
  const redline = diesel ? 4300 : 6000;
  const compression = diesel ? noise.uniform(15.5, 18.5) : noise.uniform(8.8, 10.8);
  const base = (diesel ? 0.885 : 0.855) * (1 + noise.normal(0.04)) * hidden.breathes;
  const peak = noise.uniform(0.45, 0.65) * redline;
  const hump = noise.uniform(0.05, 0.12);
  const [bump, bumpAt, bumpWide] = [noise.normal(0.012), noise.uniform(1800, 4000), noise.uniform(500, 1100)];
  const warmer = noise.uniform(0.1, 0.35);
  const turbine = noise.uniform(1.0, 1.35);
  const [tau, pipe, plenum] = [
    noise.uniform(0.5, 1.2),
    noise.uniform(2.5, 7) * displacement,
    noise.uniform(1, 2.2) * displacement,
  ];
  const [cooling, soak] = [noise.uniform(0.6, 0.85), noise.uniform(6, 20)];
  const most = ((0.9 * (ambient + boostMost)) / (R * 320)) * ((displacement * redline * 0.75) / 120);
  const suction = (noise.uniform(1.2e3, 3e3) / most ** 2) * hidden.filter;
  // A hole that loses its share where boost is full, in the middle of the speeds.
  const middle = ((0.88 * (ambient + boostMost)) / (R * 318)) * ((displacement * 0.5 * redline) / 120);
  const area = (hidden.lost / (1 - hidden.lost)) * (middle / nozzle(ambient + boostMost, ambient, 318));

  const offsets = { map: noise.normal(500), charge: noise.normal(600) };
  const curve = noise.normal(0.01);
  const skew = { map: noise.uniform(0, 0.1), charge: noise.uniform(0, 0.1), maf: noise.uniform(0, 0.1) };
  const coarse = noise.uniform() < 0.5 ? 1000 : 100;
  const rate = noise.uniform(4, 10);
  // The car is drawn; what follows is the drive.
  if (hidden.drive !== undefined) noise = seededNoise(hidden.drive);
  // Injectors and fuel pressure of a sound engine, and what its loop makes up for.
  const fuelling = seededNoise(seed + 17).normal(0.02);
  let [short, long] = [0, 0];

  const rows: LoggedRow[] = [];
  let [pc, pm, made, metal, sensed, maf, mafShown] = [ambient, ambient * 0.4, 0, outside + 12, outside + 12, 0, 0];
  if (diesel) pm = ambient;
  let [time, due, position, mostCharge, lostAtMost] = [0, 0, 0, 0, 0];
  // What a tool asks for one after the other it gets one after the other.
  const late = { map: new Float64Array(LATE), charge: new Float64Array(LATE), maf: new Float64Array(LATE) };
  let [at, hold] = [0, 0];
  // With the key on and the engine standing, half of those who log begin so.
  const standing = noise.uniform() < 0.5 ? 8 : 0;
  for (; time < standing; time += 1 / rate)
    rows.push({
      time,
      rpm: 0,
      map: step(ambient + offsets.map + noise.normal(150), coarse),
      charge: step(ambient + offsets.charge + noise.normal(150), coarse),
      asked: ambient,
      maf: 0,
      chargeTemperature: Math.round(outside + 10 - 273.15) + 273.15,
      command: 0,
      position: 0,
      short: 0,
      long: 0,
    });
  due = time;
  const dt = DT;
  for (const [seconds, from, to, pedal] of driveOf(noise, hidden)) {
    for (let s = 0; s < seconds; s += dt, time += dt) {
      const rpm = from + ((to - from) * s) / seconds;
      const reach = Math.min(1, Math.max(0, (rpm - 1100) / 900)) * (rpm > 0.85 * redline ? 0.92 : 1);
      const asked = ambient + boostMost * reach * Math.max(0, (pedal - 0.3) / 0.7) ** 0.8;
      // What is missing is regulated out as far as the vanes follow.
      if (pedal > 0.4 && hidden.vanes === 1) hold = Math.max(-15e3, Math.min(25e3, hold + ((asked - pc) * dt) / 3));
      else if (pedal <= 0.4) hold = 0;
      const can = Math.max(0, hidden.vanes * (asked - ambient) + hold);
      made += ((can - made) * dt) / tau;
      const wanted = Math.min(100, (100 * (asked - ambient)) / Math.max(1, boostMost));
      position += ((wanted * (hidden.vanes < 1 ? 0.5 + 0.4 * hidden.vanes : 1) - position) * dt) / 0.3;
      const pipeT = sensedTrue(outside, pc, ambient, cooling, metal);
      const before = ambient - suction * maf ** 2;
      // A speed line of the compressor: the more flow, the less pressure.
      const compressor = Math.max(
        0,
        ((before + made * (1 + 0.12 * (maf / most)) - pc) / 6e3) * 0.25 * most + 0.6 * maf * Math.min(1, made / 1e4),
      );
      const free = made < 5e3 ? Math.max(0, before - pc) * 4e-5 * displacement * 1e3 : 0;
      const into = Math.min(1.6 * most, compressor + free);
      const open = diesel ? 1 : Math.min(1, 0.011 + pedal ** 2.2);
      const throttle = nozzle(pc, pm, pipeT) * open * 0.55 * displacement;
      const leak = area * nozzle(pc, ambient, pipeT);
      const flow = maf / most;
      // Silencers alone where the turbine does no work; the more it does, the more stands before it.
      const work = Math.min(1, Math.max(0, pm - ambient) / 2e4);
      const p3 = (1 - work) * ambient * (1.02 + 0.07 * flow ** 2) + work * turbine * pm;
      const clearance = (compression - (p3 / pm) ** (1 / 1.33)) / (compression - 1);
      const speed = 1 - hump * ((rpm - peak) / peak) ** 2 + bump * Math.exp(-(((rpm - bumpAt) / bumpWide) ** 2));
      const filling = Math.max(0.2, base * speed * (pipeT / 300) ** warmer * clearance);
      const engine = ((filling * pm) / (R * pipeT)) * ((displacement * rpm) / 120);
      const through = Math.min(throttle, ((pc - pm) * plenum) / (R * pipeT * dt * 4) + engine);
      pc = Math.max(0.5 * ambient, pc + ((R * pipeT) / pipe) * (into - leak - through) * dt);
      pm = Math.max(0.15 * ambient, pm + ((R * pipeT) / plenum) * (through - engine) * dt);
      maf += ((into - maf) * dt) / 0.03;
      metal += ((outside + 15 + 0.15 * (pc - ambient) * 1e-3 - metal) * dt) / soak;
      mafShown += ((maf * hidden.meterGain * Math.max(0.02, maf / (0.3 * most)) ** curve - mafShown) * dt) / 0.05;
      // Closed loop at light load: fuel goes by the meter, and the trim makes up what the engine truly breathed.
      const closed = !diesel && pedal < 0.4 && made < 8e3 && mafShown > 0.2 * maf && time > standing + 6;
      const wants = closed ? engine / (Math.max(1e-5, mafShown) * (1 + fuelling) * (1 + long)) - 1 : 0;
      short += ((Math.max(-0.25, Math.min(0.25, wants)) - short) * dt) / 0.8;
      if (closed) long = Math.max(-0.3, Math.min(0.3, long + (short * dt) / 6));
      sensed += ((pipeT - sensed) * dt) / hidden.temperatureLag;
      at = (at + 1) % LATE;
      late.map[at] = pm;
      late.charge[at] = pc;
      late.maf[at] = mafShown;
      if (pc > mostCharge && asked - ambient > 0.8 * boostMost && s > 1.5) {
        mostCharge = pc;
        lostAtMost = leak / Math.max(1e-6, into);
      }
      if (time < due) continue;
      due += 1 / rate;
      const ago = (of: Float64Array, seconds: number) => of[(at - Math.round(seconds / dt) + LATE) % LATE] as number;
      rows.push({
        time: Math.round(time * 1000) / 1000,
        rpm: Math.round(rpm + noise.normal(8)),
        map: step(ago(late.map, skew.map) + offsets.map + noise.normal(250), coarse),
        charge: step(ago(late.charge, skew.charge) + offsets.charge + noise.normal(250), coarse),
        asked: step(asked, 1000),
        maf: Math.max(0, ago(late.maf, skew.maf) * (1 + noise.normal(0.006))),
        chargeTemperature: Math.round(sensed + noise.normal(0.3) - 273.15) + 273.15,
        command: Math.round(wanted),
        position: Math.round(Math.max(0, Math.min(100, position + noise.normal(0.8)))),
        short: Math.round(128 * (short + (closed ? noise.normal(0.012) : 0))) / 128,
        long: Math.round(128 * long) / 128,
      });
    }
  }
  return { rows, ambient, displacement, area, lostAtMost };
}

const step = (value: number, size: number) => Math.round(value / size) * size;

/** Temperature of the charge behind its cooler, K: compression at 68 % isentropic, the cooler's metal in between. */
function sensedTrue(outside: number, pc: number, ambient: number, cooling: number, metal: number): number {
  const compressed = outside * (1 + (Math.max(1, pc / ambient) ** 0.286 - 1) / 0.68);
  return metal + (1 - cooling) * (compressed - metal);
}
