import { airDensity, STANDARD_DENSITY, standardFlow } from "../gas/air";
import { Network, type NetworkJoint, OUTSIDE } from "../gas/network/network";
import { holeArea, SHARP_EDGED } from "../gas/orifice";
import { seededNoise } from "../maths/random";
import { entryZone, type FillSetup, type Joint, type Layout, reachOf, type ZoneId } from "../vehicle";

/** Supply of a smoke machine: Pa gauge, m³/s at standard state. */
export interface SmokePush {
  readonly ratedPressure: number;
  readonly maxFlow: number;
}

/** A hole that nobody is told of, at a joint of the layout: to the outside, or past a shut valve. m */
export interface HiddenHole {
  readonly joint: string;
  readonly diameter: number;
}

/** Effective areas, m²: a hose or pipe, a valve that stands open, an end open to the air. */
const PASSES = { pipe: 9e-5, valve: 1.2e-5, opening: 3e-4 } as const;
/** Leakage of most standing engines' valves into the exhaust, as one hole, m. */
const VALVES_PASS = 1.9e-3;
/** Ball and gauge, standard deviations as shares of their range. */
const NOISE = 0.003;
/** Gas that holds so much of smoke shows as smoke. */
const SHOWS = 0.3;

const areaOf = ({ kind }: Joint, valvesPass: number): number => {
  if (kind === "engine") return SHARP_EDGED * holeArea(valvesPass);
  return kind === "valve" || kind === "throttle" ? PASSES.valve : kind === "opening" ? PASSES.opening : PASSES.pipe;
};

/**
 * A low-pressure smoke fill of a vehicle's layout as a gas network: every zone that the setup reaches with its volume, what stands open
 * between them, hidden holes, and a machine that holds its pressure as far as its flow goes. Smoke is the tracer. Deterministic by seed.
 * @param air ambient Pa absolute, temperature K. @param valvesPass what the engine's valves pass as it stands, as one hole, m. Throws RangeError as `reachOf` does, or where nothing can be let in there.
 */
export class SmokeFill {
  private readonly network: Network;
  private readonly zones: readonly ZoneId[];
  private readonly at: number;
  private readonly noise;

  constructor(
    layout: Layout,
    setup: FillSetup,
    private readonly machine: SmokePush,
    holes: readonly HiddenHole[],
    private readonly air: { readonly ambient: number; readonly temperature: number },
    seed: number,
    valvesPass = VALVES_PASS,
  ) {
    const { zones } = reachOf(layout, setup);
    const entry = entryZone(layout, setup);
    if (entry === undefined) throw new RangeError("Nothing is filled from there");
    this.zones = zones;
    this.at = zones.indexOf(entry);
    this.noise = seededNoise(seed);
    const passes = (j: Joint) => !setup.blocked.includes(j.id) && (j.rest !== "closed" || setup.heldOpen.includes(j.id));
    const within = (z: Joint["to"]) => z !== OUTSIDE && zones.includes(z);
    const joints = layout.joints.flatMap((j): NetworkJoint[] => {
      if (j.kind === "seal" || j.id === setup.entry || !passes(j) || !within(j.from)) return [];
      if (j.to === "outside")
        return j.kind === "opening"
          ? [{ id: j.id, from: j.from, to: OUTSIDE, law: { type: "orifice", effectiveArea: PASSES.opening } }]
          : [];
      if (!within(j.to)) return [];
      const effectiveArea = areaOf(j, valvesPass);
      // A one-way valve passes from its far side to its near one.
      return j.rest === "one-way" && !setup.heldOpen.includes(j.id)
        ? [{ id: j.id, from: j.to, to: j.from, law: { type: "one-way", effectiveArea } }]
        : [{ id: j.id, from: j.from, to: j.to, law: { type: "orifice", effectiveArea } }];
    });
    const leaks = holes.flatMap(({ joint, diameter }): NetworkJoint[] => {
      const j = layout.joints.find((one) => one.id === joint);
      if (!j || setup.blocked.includes(joint) || joint === setup.entry) return [];
      const ends = [j.from, j.kind === "valve" ? j.to : OUTSIDE].map((end) => (within(end) ? end : OUTSIDE));
      if (ends[0] === ends[1]) return [];
      const [from, to] = ends as [string, string];
      const law = { type: "orifice", effectiveArea: SHARP_EDGED * holeArea(diameter) } as const;
      return [{ id: `hole:${joint}`, from, to, law }];
    });
    const { ambient, temperature } = air;
    this.network = new Network({
      ambient,
      temperature,
      tracer: "machine",
      zones: layout.zones
        .filter((z) => zones.includes(z.id))
        .map((z) => ({ id: z.id, volume: z.volume, pressure: ambient, temperature, wallTime: 10 })),
      joints: [
        {
          id: "machine",
          from: OUTSIDE,
          to: entry,
          law: { type: "regulator", setPressure: ambient + machine.ratedPressure, maxFlow: machine.maxFlow * STANDARD_DENSITY },
        },
        ...joints,
        ...leaks,
      ],
    });
  }

  /** On to this time of the run, s. */
  advance(until: number): void {
    this.network.advance(until);
  }

  /** From now on nothing is pushed: the heater is out, or the machine has switched itself off. */
  stop(): void {
    this.network.set(0, { type: "regulator", setPressure: this.air.ambient, maxFlow: 0 });
  }

  /** Reading of the ball on its scale, m³/s, and the gauge, Pa gauge. */
  read(): { readonly flow: number; readonly pressure: number } {
    const pressure = this.network.pressure(this.at) - this.air.ambient;
    const flow = standardFlow(this.network.flowsNow()[0]?.flow ?? 0);
    const density = airDensity(this.air.ambient + pressure, this.air.temperature);
    return {
      flow: Math.max(0, flow / Math.sqrt(density / STANDARD_DENSITY) + this.noise.normal(NOISE * this.machine.maxFlow)),
      pressure: Math.max(0, pressure + this.noise.normal(NOISE * this.machine.ratedPressure)),
    };
  }

  /** Zones in which smoke would show by now. */
  get smoked(): ZoneId[] {
    return this.zones.filter((_, i) => (this.network.share[i] as number) >= SHOWS);
  }
}
