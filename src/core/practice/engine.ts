import { Network, OUTSIDE } from "../gas/network/network";
import { holeArea, SHARP_EDGED } from "../gas/orifice";
import { seededNoise } from "../maths/random";
import type { ChannelId } from "../scan-log";

/** The hidden truth of a petrol engine with an air meter. SI. */
export interface EngineTruth {
  readonly displacement: number;
  /** Pa absolute and K */
  readonly ambient: number;
  readonly temperature: number;
  /** Hole in the manifold, m; none at 0 */
  readonly hole: number;
  /** Share by which fuelling falls short at every flow */
  readonly fuelError?: number;
}

/** The ECU and the engine's mechanics are stepped so often, s. */
const STEP = 0.05;
/** Engine speed that idle control holds, 1/min. */
const IDLE = 740;
/** Work that a kilogram of air brings with its fuel, J/kg, and friction with pumping at no load, N·m; a small engine's. */
const WORK = 0.9e6;
const FRICTION = 28;
/** Moment of inertia with its flywheel, kg·m². */
const INERTIA = 0.15;
/** How fast a foot changes engine speed without load, 1/min a second. */
const FOOT = 500;
/** Idle control on the throttle's effective area: m² for each 1/min that is missing, and for each of those a second. */
const PROPORTIONAL = 1e-8;
const INTEGRAL = 6e-9;
/** Gas reaches the oxygen sensor after so long, and it follows with this time constant, s. */
const TRANSPORT = 0.4;
const SENSOR = 0.25;
/** Closed loop: percent a second for an error of one in λ; long-term takes over a share of short-term a second; where both stop, percent. */
const CLOSED_LOOP = 60;
const LEARNS = 1 / 15;
const STOP = 25;
/** Meter and pressure sensor, standard deviations: share, Pa. */
const METER_NOISE = 0.005;
const PRESSURE_NOISE = 150;

const RPM = Math.PI / 30;
const STOICHIOMETRIC = 14.7;

/** What an engine breathes of its manifold's density, by speed: measured ones of its size rise so from idle. */
const breathing = (rpm: number) => 0.6 + 0.2 * Math.min(1, Math.max(0, (rpm - 700) / 2500));

/**
 * A warm petrol engine that behaves: duct, throttle and manifold as a gas network, the engine as its pump, idle control on the
 * throttle, a closed loop with short and long trims in two cells, an air meter. A hole in the manifold lets in air that the meter does
 * not see. Speed follows torque less friction. Deterministic by its seed. Valid without load, 600 to 4000 1/min.
 */
export class PracticeEngine {
  time = 0;
  /** Engine speed that the foot holds, 1/min; idle control where there is none */
  foot: number | undefined;

  private rpm = IDLE;
  /** What the foot has come to: it is no switch */
  private wanted = IDLE;
  private area: number;
  private missing = 0;
  private short = 0;
  private readonly long = { idle: 0, off: 0 };
  private readonly onItsWay: number[];
  private sensed = 1;
  private meter = 0;
  private readonly network: Network;
  /** Of the engine, and of what is read: looking changes nothing */
  private readonly noise;
  private readonly reading;

  constructor(
    private readonly truth: EngineTruth,
    seed: number,
  ) {
    const { ambient, temperature, displacement, hole } = truth;
    this.noise = seededNoise(seed);
    this.reading = seededNoise(seed + 1);
    this.onItsWay = new Array<number>(Math.round(TRANSPORT / STEP)).fill(1);
    this.area = (1.05e-5 * displacement) / 1.6e-3;
    const zone = (id: string, volume: number, pressure: number) => ({ id, volume, pressure, temperature });
    this.network = new Network({
      ambient,
      temperature,
      isothermal: true,
      zones: [zone("duct", 3e-3, ambient), zone("manifold", 1.5 * displacement, 0.33 * ambient)],
      joints: [
        { id: "filter", from: OUTSIDE, to: "duct", law: { type: "pipe", resistance: 2e4 } },
        { id: "throttle", from: "duct", to: "manifold", law: { type: "orifice", effectiveArea: this.area } },
        { id: "engine", from: "manifold", to: OUTSIDE, law: { type: "sweep", rate: 0 } },
        { id: "hole", from: OUTSIDE, to: "manifold", law: { type: "orifice", effectiveArea: SHARP_EDGED * holeArea(hole) } },
      ],
    });
  }

  /** On to this time, s, in whole steps of the ECU. */
  advance(until: number): void {
    while (this.time + STEP <= until + 1e-9) this.step();
  }

  private step(): void {
    const { truth, network } = this;
    const asked = this.foot ?? IDLE;
    this.wanted += Math.max(-FOOT * STEP, Math.min(FOOT * STEP, asked - this.wanted));
    const { wanted } = this;
    // While the foot moves, what lags is no fault of the throttle.
    if (asked === wanted) this.missing = Math.max(-1500, Math.min(1500, this.missing + (wanted - this.rpm) * STEP));
    const scale = truth.displacement / 1.6e-3;
    const feed = this.area * (wanted / IDLE);
    const open = feed + scale * (PROPORTIONAL * (wanted - this.rpm) + INTEGRAL * this.missing);
    network.set(1, { type: "orifice", effectiveArea: Math.max(1e-6 * scale, open) });
    network.set(2, { type: "sweep", rate: (breathing(this.rpm) * truth.displacement * this.rpm) / 120 });
    this.time += STEP;
    network.advance(this.time);
    const flows = network.flowsNow();
    const air = flows[2]?.flow ?? 0;
    this.meter = Math.max(0, (flows[0]?.flow ?? 0) * (1 + this.noise.normal(METER_NOISE)));
    // Fuel goes by what the meter sees and both trims; λ by what came in.
    const cell = this.foot === undefined ? "idle" : "off";
    const corrected = (1 + this.short / 100) * (1 + this.long[cell] / 100);
    const fuel = (this.meter / STOICHIOMETRIC) * corrected * (1 - (truth.fuelError ?? 0));
    const lambda = fuel > 0 ? air / (STOICHIOMETRIC * fuel) : 2;
    this.onItsWay.push(Math.min(1.6, lambda));
    this.sensed += ((this.onItsWay.shift() as number) - this.sensed) * (STEP / SENSOR);
    const within = (percent: number) => Math.max(-STOP, Math.min(STOP, percent));
    this.short = within(this.short + CLOSED_LOOP * (this.sensed - 1) * STEP);
    const learnt = this.short * LEARNS * STEP;
    this.long[cell] = within(this.long[cell] + learnt);
    this.short = within(this.short - learnt);
    const torque = (air * WORK) / (this.rpm * RPM);
    this.rpm = Math.max(300, this.rpm + ((torque - FRICTION * scale) / (INERTIA * scale) / RPM) * STEP);
  }

  /** What a scan tool reads now, as the ECU rounds it: SI, trims and throttle in percent. */
  read(): Readonly<Partial<Record<ChannelId, number>>> {
    const { truth, reading: noise } = this;
    const rounded = (value: number, step: number) => Math.round(value / step) * step;
    const swing = 0.7 * Math.sin(2 * Math.PI * 0.7 * this.time) + noise.normal(0.3);
    const cell = this.foot === undefined ? "idle" : "off";
    return {
      rpm: rounded(this.rpm + noise.normal(4), 0.25),
      maf: rounded(this.meter, 1e-5),
      map: rounded(this.network.pressure(1) + noise.normal(PRESSURE_NOISE), 1000),
      barometer: rounded(truth.ambient, 1000),
      "intake-temperature": rounded(truth.temperature, 1) + 0.15,
      coolant: 361.15,
      "short-trim-1": rounded(this.short + swing, 100 / 128),
      "long-trim-1": rounded(this.long[cell], 100 / 128),
      loop: 1,
    };
  }

  /** Trims that closed loop would come to in the end with this hole, share: what a test holds the engine to. */
  get settled(): number {
    const [, , engine, hole] = this.network.flowsNow();
    const metered = (engine?.flow ?? 0) - (hole?.flow ?? 0);
    return (1 / (1 - (this.truth.fuelError ?? 0))) * ((engine?.flow ?? 0) / metered) - 1;
  }
}
