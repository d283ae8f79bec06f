import { R_AIR } from "../gas/air";
import { Network, type NetworkJoint, type NetworkZone, OUTSIDE } from "../gas/network/network";
import { holeArea, massFlux, SHARP_EDGED } from "../gas/orifice";
import { seededNoise } from "../maths/random";
import type { ChannelId } from "../scan-log";
import {
  BLOCKED,
  CHARGE,
  CLOSED_LOOP,
  COMPRESSOR,
  DRIVES_LESS,
  EXHAUST,
  FAST_IDLE,
  FILTER,
  FOOT,
  FRICTION,
  GAS,
  GIVES_UP,
  IDLE,
  INERTIA,
  INTEGRAL,
  LEARNS,
  LEAST,
  LOOP,
  METER_NOISE,
  PRESSURE_NOISE,
  PROPORTIONAL,
  PULSE,
  RPM,
  SENSOR,
  SIZE,
  STEP,
  STOICHIOMETRIC,
  STOP,
  SUCKS,
  TRANSPORT,
  TURBINE,
  WARM,
  WARMS,
  WAY_OUT,
  WIDE,
  WIDE_OPEN,
  WORK,
} from "./engine-constants";
import type { Driving, EngineTruth } from "./engine-truth";

/** Volumetric efficiency of an engine: what it breathes of its manifold's density, by speed: measured ones of its size rise so from idle. */
const breathing = (rpm: number) => 0.7 + 0.2 * Math.min(1, Math.max(0, (rpm - 700) / 2500));
/** The share that burnt gas left in the cylinders takes: by exhaust over manifold pressure, compression ratio 10.5. */
const residual = (exhaust: number, manifold: number) => Math.max(0.3, 1 - (exhaust / manifold - 1) / (1.4 * 9.5));

const LAWS = [
  "filter",
  "throttle",
  "engine",
  "out",
  "hole",
  "duct-hole",
  "backflow",
  "compressor",
  "freewheel",
  "turbine",
  "charge-hole",
];
type Part = "duct" | "charge" | "manifold" | "exhaust" | "front";

/** A steady operating point as the engine stands there, without its instruments. SI; trims as shares, by bank. */
export interface OperatingState {
  readonly rpm: number;
  /** Meter reading, kg/s */
  readonly meter: number;
  readonly map: number;
  readonly charge: number;
  /** Behind the turbine where there is one, before the catalyst */
  readonly front: number;
  /** Air that burns, kg/s */
  readonly air: number;
  readonly trims: readonly number[];
  /** Air sucked in before the sensor as a share of what burns */
  readonly falseAir: number;
}

/**
 * An engine that behaves: duct, compressor, throttle, manifold and exhaust as a gas network, the engine as its pump, idle control
 * on the throttle, a closed loop with short and long trims in two cells, an air meter. A hole in the manifold lets in air that the
 * meter does not see. Without load speed follows torque less friction; on the road the road holds it. A diesel has no throttle and no
 * trims. Deterministic by its seed. Valid for 600 to 5000 1/min.
 */
export class PracticeEngine {
  time = 0;
  driving: Driving = {};
  /** The ECU has taken boost away, until the key was off */
  limp = false;

  private rpm: number;
  private coolant: number;
  /** When gas was held to its hole, s */
  private readonly taps: number[] = [];
  /** How long boost has been off by now, s */
  private off = 0;
  /** Pedal position: it is no switch */
  private wanted = IDLE;
  private area: number;
  private onRoad: number;
  /** How far the throttle stands open now, m² effective */
  private flap: number;
  private missing = 0;
  private readonly short: number[];
  private readonly long: { readonly idle: number[]; readonly off: number[] };
  private readonly onItsWay: number[][];
  private readonly sensed: number[];
  /** kg/s, and the same as its signal trembles */
  private metered = 0;
  private meter = 0;
  private readonly network: Network;
  private readonly at: Readonly<Record<Part, number>>;
  private readonly joint: Readonly<Record<string, number>>;
  /** Of the engine, and of what is read: looking changes nothing */
  private readonly noise;
  private readonly reading;

  /** @param givesUp whether its ECU takes boost away where it is off: a steady point is looked at before it does. */
  constructor(
    private readonly truth: EngineTruth,
    seed: number,
    private readonly givesUp = true,
  ) {
    const { ambient, temperature, displacement, boost, diesel, banks = 1 } = truth;
    this.noise = seededNoise(seed);
    this.reading = seededNoise(seed + 1);
    const each = <T>(value: T) => new Array<T>(banks).fill(value);
    this.short = each(0);
    this.long = { idle: each(0), off: each(0) };
    this.sensed = each(1);
    this.onItsWay = Array.from({ length: Math.round(TRANSPORT / STEP) }, () => each(1));
    this.rpm = IDLE;
    this.coolant = truth.coolant ?? WARM;
    const scale = displacement / SIZE;
    this.area = 1.05e-5 * scale;
    const wide = WIDE * displacement;
    this.onRoad = wide / 3;
    this.flap = this.area;
    const zone = (id: Part, volume: number, pressure: number, t = temperature): NetworkZone => ({
      id,
      volume,
      pressure,
      temperature: t,
    });
    const hole = (id: string, from: string, to: string, diameter = 0): NetworkJoint => ({
      id,
      from,
      to,
      law: { type: "orifice", effectiveArea: SHARP_EDGED * holeArea(diameter) },
    });
    const before = boost ? "charge" : "duct";
    const behind = boost ? "front" : "exhaust";
    const zones = [
      zone("duct", 3e-3, ambient),
      zone("manifold", 1.5 * displacement, diesel ? ambient : 0.33 * ambient, boost ? temperature + CHARGE : temperature),
      zone("exhaust", 4e-3, ambient, EXHAUST),
      ...(boost ? [zone("charge", 6e-3, ambient, temperature + CHARGE), zone("front", 4e-3, ambient, EXHAUST)] : []),
    ];
    const joints: NetworkJoint[] = [
      {
        id: "filter",
        from: OUTSIDE,
        to: "duct",
        law: { type: "orifice", effectiveArea: (FILTER * scale) / Math.sqrt(truth.intakeBlock ?? 1) },
      },
      { id: "throttle", from: before, to: "manifold", law: { type: "orifice", effectiveArea: diesel ? wide : this.area } },
      { id: "engine", from: "manifold", to: "exhaust", law: { type: "sweep", rate: 0 } },
      {
        id: "out",
        from: behind,
        to: OUTSIDE,
        law: truth.exhaustBlock
          ? { type: "pipe", resistance: (BLOCKED * truth.exhaustBlock) / scale }
          : { type: "orifice", effectiveArea: WAY_OUT * scale },
      },
      hole("hole", OUTSIDE, "manifold", truth.hole),
      hole("duct-hole", OUTSIDE, "duct", truth.ductHole),
      hole("backflow", "exhaust", "manifold", truth.backflow),
      ...(boost
        ? [
            {
              id: "compressor",
              from: "duct",
              to: "charge",
              law: { type: "regulator", setPressure: ambient, maxFlow: 0 },
            } as const,
            { id: "freewheel", from: "duct", to: "charge", law: { type: "one-way", effectiveArea: wide } } as const,
            hole("charge-hole", "charge", OUTSIDE, truth.chargeHole),
            { id: "turbine", from: "exhaust", to: "front", law: { type: "orifice", effectiveArea: WIDE_OPEN * scale } } as const,
          ]
        : []),
    ];
    const index = (list: readonly { readonly id: string }[], id: string) => list.findIndex((one) => one.id === id);
    this.at = {
      duct: index(zones, "duct"),
      charge: index(zones, before),
      manifold: index(zones, "manifold"),
      exhaust: index(zones, "exhaust"),
      front: index(zones, behind),
    };
    this.joint = Object.fromEntries(LAWS.map((id) => [id, index(joints, id)]));
    this.network = new Network({ ambient, temperature, isothermal: true, zones, joints });
  }

  /** Enrichment gas is held to the hole for a moment. */
  enrich(): void {
    this.taps.push(this.time);
  }

  /** Fuel that comes in by the hole with its air, as a share of what is injected. */
  private drawnFuel(leakShare: number): number {
    const dose = this.taps.reduce((sum, at) => {
      const age = this.time - at - GAS.reaches;
      return age <= 0 ? sum : sum + (1 - Math.exp(-age / GAS.rises)) * Math.exp(-Math.max(0, age - GAS.lasts) / GAS.fades);
    }, 0);
    return GAS.richer * dose * leakShare;
  }

  /** The key off and on again. */
  keyOff(): void {
    this.limp = false;
    this.off = 0;
  }

  /** Speed that idle control holds, 1/min: faster while it is cold. */
  private get idle(): number {
    return IDLE + FAST_IDLE * Math.min(1, Math.max(0, (WARM - 15 - this.coolant) / 60));
  }

  private get closedLoop(): boolean {
    return this.coolant >= WARM || (this.coolant >= LOOP.from && this.time >= LOOP.after);
  }

  /** On to this time, s, in whole steps of the ECU. */
  advance(until: number): void {
    while (this.time + STEP <= until + 1e-9) this.step();
  }

  private pressure(part: Part): number {
    return this.network.pressure(this.at[part]);
  }

  /** Flow of a joint now, kg/s; 0 where this engine has none. */
  private flow(joint: string): number {
    return this.network.flowsNow()[this.joint[joint] as number]?.flow ?? 0;
  }

  /** Throttle opening by driver and idle control, m² effective. */
  private opening(): number {
    const { truth } = this;
    const { foot, road } = this.driving;
    const wide = WIDE * truth.displacement;
    if (truth.diesel) return wide;
    const scale = truth.displacement / SIZE;
    if (road) {
      if (road.map === undefined) return wide;
      // The foot feels its way to the pull that is asked for.
      this.onRoad *= 1 + Math.max(-0.04, Math.min(0.04, (road.map - this.pressure("manifold")) / 5e4));
      this.onRoad = Math.min(wide, this.onRoad);
      return this.onRoad;
    }
    const asked = foot ?? this.idle;
    this.wanted += Math.max(-FOOT * STEP, Math.min(FOOT * STEP, asked - this.wanted));
    const { wanted } = this;
    // While the foot moves, what lags is no fault of the throttle.
    if (asked === wanted) this.missing = Math.max(-1500, Math.min(1500, this.missing + (wanted - this.rpm) * STEP));
    const feed = this.area * (wanted / IDLE);
    const open = feed + scale * (PROPORTIONAL * (wanted - this.rpm) + INTEGRAL * this.missing);
    const least = this.area * (foot === undefined && truth.idleStuck ? 1 + truth.idleStuck : LEAST);
    return Math.max(least, open);
  }

  /** Asked boost, Pa absolute: as far as the driver pulls. */
  get asked(): number {
    const { ambient, boost = 0 } = this.truth;
    const { road } = this.driving;
    if (!road || this.limp) return ambient;
    return ambient + (road.map === undefined ? boost : Math.max(0, Math.min(boost, road.map - ambient)));
  }

  private step(): void {
    const { truth, network, joint } = this;
    const { displacement, banks = 1, ambient } = truth;
    const { road } = this.driving;
    this.flap = this.opening();
    network.set(joint.throttle as number, { type: "orifice", effectiveArea: this.flap });
    if (road) this.rpm = road.rpm;
    else if (truth.diesel) this.rpm += ((this.driving.foot ?? IDLE + 60) - this.rpm) * STEP;
    const full = Math.min(1, (this.rpm * this.pressure("manifold")) / (4000 * ambient));
    const filling =
      breathing(this.rpm) *
      residual(this.pressure("exhaust"), this.pressure("manifold")) *
      (1 - (truth.worn ?? 0)) *
      (1 - (truth.coked ?? 0) * full);
    const rate = (filling * displacement * this.rpm) / 120;
    network.set(joint.engine as number, { type: "sweep", rate });
    if (truth.boost) {
      // A turbine that has to push against a blocked exhaust drives its compressor less.
      const driven = (truth.boostShare ?? 1) * Math.max(0.4, 1 - DRIVES_LESS * (truth.exhaustBlock ?? 0));
      const setPressure = ambient + (this.asked - ambient) * driven;
      const takes = (rate * (ambient + truth.boost)) / (R_AIR * (truth.temperature + CHARGE));
      network.set(joint.turbine as number, { type: "orifice", effectiveArea: this.turbine(setPressure > ambient) });
      network.set(joint.compressor as number, { type: "regulator", setPressure, maxFlow: road ? COMPRESSOR * takes : 0 });
    }
    this.time += STEP;
    network.advance(this.time);
    this.coolant += (WARM - this.coolant) * (STEP / WARMS);
    this.watchBoost();
    const { air, bankAir } = this.breathed();
    const low = (1 - (truth.meterLow ?? 0)) * (1 - (truth.meterRange ?? 0) * full ** 1.5);
    this.metered = Math.max(0, this.flow("filter") * low);
    this.meter = this.metered * (1 + this.noise.normal(METER_NOISE));
    const off = this.driving.foot !== undefined || road !== undefined;
    const long = off ? this.long.off : this.long.idle;
    const drawn = this.drawnFuel(Math.max(0, this.flow("hole")) / Math.max(1e-9, air));
    const arriving = this.onItsWay.shift() as number[];
    const leaving: number[] = [];
    for (let bank = 0; bank < banks; bank++) {
      // Fuel goes by what the meter sees and both trims; λ by what came in.
      const trim = (1 + (this.short[bank] as number) / 100) * (1 + (long[bank] as number) / 100);
      const fuel = this.fuelPerBank(this.meter) * (trim + drawn);
      leaving.push(Math.min(1.6, fuel > 0 ? (bankAir(bank) + this.falseAir() / banks) / (STOICHIOMETRIC * fuel) : 2));
      this.sensed[bank] =
        (this.sensed[bank] as number) + ((arriving[bank] as number) - (this.sensed[bank] as number)) * (STEP / SENSOR);
      const within = (percent: number) => Math.max(-STOP, Math.min(STOP, percent));
      if (!this.closedLoop) continue;
      const short = within((this.short[bank] as number) + CLOSED_LOOP * ((this.sensed[bank] as number) - 1) * STEP);
      const learnt = short * LEARNS * STEP;
      long[bank] = within((long[bank] as number) + learnt);
      this.short[bank] = within(short - learnt);
    }
    this.onItsWay.push(leaving);
    if (road || truth.diesel) return;
    const scale = displacement / SIZE;
    const torque = (air * WORK) / (this.rpm * RPM);
    this.rpm = Math.max(300, this.rpm + ((torque - FRICTION * scale) / (INERTIA * scale) / RPM) * STEP);
  }

  /** Gives boost up where it is off by what matters for long enough. */
  private watchBoost(): void {
    if (!this.givesUp || this.limp || !this.truth.boost) return;
    const asked = this.asked - this.truth.ambient;
    const off = Math.abs(this.pressure("charge") - this.asked);
    this.off = asked > GIVES_UP.off && off > Math.max(GIVES_UP.off, GIVES_UP.share * asked) ? this.off + STEP : 0;
    this.limp = this.off > GIVES_UP.after;
  }

  /** The way through its turbine, m² effective: as narrow as it takes to drive the compressor. */
  private turbine(works: boolean): number {
    const wide = (WIDE_OPEN * this.truth.displacement) / SIZE;
    const front = this.pressure("front");
    const before = (this.truth.turbineRatio ?? TURBINE) * this.pressure("manifold");
    if (!works || before <= front * 1.001) return wide;
    return Math.min(wide, this.flow("engine") / massFlux(before, front, EXHAUST));
  }

  /** Air that burns, kg/s, and each bank's part of it; what is led back is no air. */
  private breathed() {
    const { banks = 1, holeBank } = this.truth;
    const swept = this.flow("engine");
    const leak = Math.max(0, this.flow("hole"));
    const back = Math.max(0, this.flow("backflow"));
    const air = swept * (1 - Math.min(0.9, back / Math.max(1e-9, this.flow("throttle") + leak + back)));
    const own = holeBank === undefined ? 0 : Math.min(leak, air / banks);
    return { air, bankAir: (bank: number) => (air - own) / banks + (bank === holeBank ? own : 0) };
  }

  /** Fuel that a bank gets without any trim, kg/s. */
  private fuelPerBank(meter: number): number {
    const { truth } = this;
    const { banks = 1, displacement, temperature, ambient } = truth;
    const map = this.pressure("manifold");
    const full = Math.min(1, (this.rpm * map) / (4000 * ambient));
    const counted = truth.speedDensity
      ? (breathing(this.rpm) * residual(ambient, map) * map * displacement * this.rpm) / (R_AIR * temperature * 120)
      : meter;
    const given = (1 - (truth.fuelError ?? 0)) * (1 - (truth.supplyShort ?? 0) * full ** 1.5);
    return ((counted / STOICHIOMETRIC) * given) / banks;
  }

  /** Air sucked in before the oxygen sensor between pulses, kg/s. */
  private falseAir(): number {
    const { exhaustHole = 0, ambient, temperature } = this.truth;
    return exhaustHole > 0 ? SUCKS * SHARP_EDGED * holeArea(exhaustHole) * massFlux(ambient, ambient - PULSE, temperature) : 0;
  }

  /** Values a scan tool reads now, as the ECU rounds it: SI, trims and throttle in percent. */
  read(): Readonly<Partial<Record<ChannelId, number>>> {
    const { truth, reading: noise } = this;
    const { banks = 1 } = truth;
    const rounded = (value: number, step: number) => Math.round(value / step) * step;
    const off = this.driving.foot !== undefined || this.driving.road !== undefined;
    const long = off ? this.long.off : this.long.idle;
    const swing = () => 0.7 * Math.sin(2 * Math.PI * 0.7 * this.time) + noise.normal(0.3);
    const trims = (bank: 1 | 2) => ({
      [`short-trim-${bank}`]: rounded((this.short[bank - 1] as number) + swing(), 100 / 128),
      [`long-trim-${bank}`]: rounded(long[bank - 1] as number, 100 / 128),
    });
    return {
      rpm: rounded(this.rpm + noise.normal(4), 0.25),
      ...(truth.speedDensity ? {} : { maf: rounded(this.meter, 1e-5) }),
      map: rounded(this.pressure("manifold") + noise.normal(PRESSURE_NOISE), 1000),
      barometer: rounded(truth.ambient, 1000),
      "intake-temperature": rounded(truth.temperature, 1) + 0.15,
      coolant: rounded(this.coolant, 1) + 0.15,
      ...(truth.diesel ? {} : { throttle: rounded((100 * this.flap) / (WIDE * truth.displacement), 100 / 255) }),
      ...(truth.diesel ? {} : { ...trims(1), ...(banks === 2 ? trims(2) : {}), loop: this.closedLoop ? 1 : 0 }),
    };
  }

  /** How it stands now; trims are those that closed loop comes to in the end. */
  get state(): OperatingState {
    const { banks = 1 } = this.truth;
    const { air, bankAir } = this.breathed();
    const falseAir = this.falseAir();
    const trims = Array.from({ length: banks }, (_, bank) => {
      const fuel = this.fuelPerBank(this.metered);
      const total = fuel > 0 ? (bankAir(bank) + falseAir / banks) / (STOICHIOMETRIC * fuel) - 1 : 0;
      return Math.max(-STOP / 100, Math.min(STOP / 100, total));
    });
    return {
      rpm: this.rpm,
      meter: this.metered,
      map: this.pressure("manifold"),
      charge: this.pressure("charge"),
      front: this.pressure("front"),
      air,
      trims,
      falseAir: falseAir / Math.max(1e-9, air),
    };
  }
}

/** How long an engine takes to come to rest at a point, s: sooner where the road holds its speed. */
const SETTLES = { road: 8, free: 20 } as const;

/** An engine brought to a point and left there until it stands. Deterministic by its seed. */
export function operatingState(truth: EngineTruth, driving: Driving, seed: number): OperatingState {
  const engine = new PracticeEngine(truth, seed, false);
  engine.driving = driving;
  engine.advance(driving.road ? SETTLES.road : SETTLES.free);
  return engine.state;
}
