import { readSurvey, type TrimPoint, type TrimSurvey } from "@/core/checks/trims";
import { type Noise, seededNoise } from "@/core/maths/random";

/** How an air meter may be wrong, besides noise. */
export const METERS = ["perfect", "gain", "gain and curve"] as const;
export type MeterWorld = (typeof METERS)[number];

/** What is wrong with an engine: a hole of all banks, or of one of two, a wrong fuelling, both, or nothing. */
export type TrimFault = "none" | "hole" | "hole of one bank" | "constant" | "constant and hole";

const R = 287.05;

/** Air that a sharp edge lets into a manifold, kg/s, by the enthalpy drop to its throat. */
function drawnIn(ambient: number, map: number, t: number, diameter: number): number {
  const ratio = Math.max(0.5283, Math.min(1, map / ambient));
  const fall = 1 - ratio ** (2 / 7);
  return 0.61 * 0.25 * Math.PI * diameter ** 2 * (ambient / (R * t)) * ratio ** (5 / 7) * Math.sqrt(2 * 1004.7 * t * fall);
}

export interface HiddenSurvey {
  readonly survey: TrimSurvey;
  readonly litres: number;
  /** m; nothing where none is */
  readonly hole: number;
  /** The bank that it is on, where it is on one */
  readonly bank?: number;
}

/** A survey of steady points: friction and load give what the engine draws, its meter shows a part of it, banks trim for themselves. */
function hiddenSurvey(seed: number, banks: 1 | 2, fault: TrimFault, meter: MeterWorld): HiddenSurvey {
  const noise: Noise = seededNoise(seed);
  const litres = noise.uniform(1.2, 3.2);
  const ambient = noise.uniform(92e3, 102.5e3);
  const t = noise.uniform(279, 306);
  const gain = meter === "perfect" ? 1 : 1 + noise.normal(0.02);
  const curve = meter === "gain and curve" ? noise.normal(0.01) : 0;
  // Both together stay within what an ECU corrects: at its stop it says no more than "at least".
  const mixed = fault === "constant and hole";
  const off = mixed ? noise.uniform(0.06, 0.12) : noise.uniform(0.06, 0.2);
  const wrong = fault.startsWith("constant") ? off * (noise.uniform() < 0.7 ? 1 : -1) : 0;
  const size = (mixed ? noise.uniform(1.1e-3, 1.9e-3) : noise.uniform(1.3e-3, 2.3e-3)) * Math.sqrt(litres / 1.8);
  const hole = fault === "none" || fault === "constant" ? 0 : size;
  const bank = fault === "hole of one bank" ? Math.floor(noise.uniform(0, banks)) : undefined;
  const fuel = Array.from({ length: banks }, () => noise.normal(0.012));
  const scatter = noise.uniform(0.4, 1.4);
  const idles = noise.uniform(650, 820);
  const road = noise.uniform(2000, 2700);
  const states: [rpm: number, map: number][] = [
    [idles, noise.uniform(30e3, 38e3)],
    [1500, noise.uniform(27e3, 34e3)],
    [2500, noise.uniform(26e3, 33e3)],
    [road, noise.uniform(0.5, 0.72) * ambient],
    [noise.uniform(2800, 4000), noise.uniform(0.85, 0.96) * ambient],
  ];
  const points = states.map(([rpm, map]): TrimPoint => {
    const filling = 0.62 + 0.26 * (1 - Math.exp(-map / 45e3)) + 0.03 * Math.sin(rpm / 900);
    const swallowed = ((filling * map) / (R * (t + 15))) * ((litres * 1e-3 * rpm) / 120);
    const q = hole > 0 ? Math.min(drawnIn(ambient, map, t, hole), 0.7 * swallowed) : 0;
    const metered = swallowed - q;
    const shown = metered * gain * (metered / 0.02) ** curve * (1 + noise.normal(0.008));
    return {
      rpm: Math.round(rpm + noise.normal(6)),
      maf: { value: Math.round(shown * 1e5) / 100, unit: "g/s" },
      map: { value: Math.round((map + noise.normal(400)) / 1000), unit: "kPa", kind: "absolute" },
      coolant: { value: 90, unit: "°C" },
      closedLoop: true,
      banks: Array.from({ length: banks }, (_, k) => {
        const own = bank === undefined ? q / banks : bank === k ? q : 0;
        const y = ((metered / banks + own) * (1 + wrong + (fuel[k] as number))) / (shown / banks);
        const total = 100 * (y - 1) + noise.normal(scatter);
        const long = Math.max(-25, Math.min(25, Math.round((total * 128) / 100) / 1.28));
        return {
          short: Math.round(10 * Math.max(-25, Math.min(25, total - long))) / 10,
          long: Math.round(10 * long) / 10,
          scatter: scatter / 3,
        };
      }),
    };
  });
  return {
    survey: {
      points,
      source: { kind: "typed" },
      ambient: { value: ambient / 100, unit: "hPa", kind: "absolute" },
      intakeTemperature: { value: t - 273.15, unit: "°C" },
    },
    litres,
    hole,
    ...(bank === undefined ? {} : { bank }),
  };
}

const read = ({ survey, litres }: HiddenSurvey) =>
  readSurvey(survey, { induction: "natural", displacement: { value: litres, unit: "L" } }, "sum", { good: 0.05, act: 0.1 });

export interface TrimMarks {
  /** One bank: intervals that were given and hold the truth; how many were given */
  readonly covered: number;
  readonly sized: number;
  readonly shared: number;
  readonly sharedSized: number;
  /** Sound engines, and flat and equal banks, that get a hole */
  readonly soundHoles: number;
  readonly flatShared: number;
  readonly first: number;
  /** Constant and hole together: the share whose hole is seen */
  readonly together: number;
}

/** Surveys of one meter's world, read blind. @param count surveys of each kind. */
export function trimsOutside(meter: MeterWorld, count: number, seed: number): TrimMarks {
  const of = (banks: 1 | 2, fault: TrimFault, from: number) =>
    Array.from({ length: count }, (_, i) => {
      const hidden = hiddenSurvey(seed + from + i, banks, fault, meter);
      return { hidden, reading: read(hidden) };
    });
  const share = <T>(list: readonly T[], is: (one: T) => boolean) => list.filter(is).length / Math.max(1, list.length);
  const inside = (hole: { low: number; high: number } | null | undefined, truth: number) =>
    hole ? hole.low <= truth && truth <= hole.high : false;
  const one = of(1, "hole", 0);
  const sound = [...of(1, "none", 10_000), ...of(2, "none", 20_000)];
  const both = of(2, "hole", 30_000);
  const flat = of(2, "constant", 40_000);
  const mixed = of(1, "constant and hole", 50_000);
  const constant = of(1, "constant", 60_000);
  const holed = [...one, ...mixed].filter((r) => r.reading.banks[0]?.hole);
  const sharing = both.filter((r) => r.reading.shared);
  const names = (r: (typeof one)[number], id: string) => r.reading.banks[0]?.shapes[0]?.id === id;
  return {
    covered: share(holed, (r) => inside(r.reading.banks[0]?.hole, r.hidden.hole)),
    sized: share(one, (r) => Boolean(r.reading.banks[0]?.hole)),
    shared: share(sharing, (r) => inside(r.reading.shared?.hole, r.hidden.hole)),
    sharedSized: share(both, (r) => Boolean(r.reading.shared)),
    soundHoles: share(sound, (r) => r.reading.banks.some((b) => b.hole)),
    flatShared: share(flat, (r) => Boolean(r.reading.shared)),
    first: share(
      [
        ...one.map((r) => names(r, "fades-with-flow")),
        ...constant.map((r) => names(r, "constant")),
        ...sound.map((r) => names(r, "none")),
      ],
      Boolean,
    ),
    together: share(mixed, (r) => names(r, "fades-with-flow")),
  };
}
