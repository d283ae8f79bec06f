import { inSentence } from "../sentence";
import { EVAP_ZONES, type Joint, type Layout } from "../vehicle";
import type { Verdict } from "./verdict";

/** Answer of a record to one question. */
export type Says = "good" | "bad" | "open";

/** One question, as small as it can be told apart: `tight@pcv-hose`, `trim@bank1/idle`, `seat@purge-valve/cold`. */
export interface Atom {
  /** Its name, made of the parts below: compared and shown, never parsed */
  readonly atom: string;
  readonly question: string;
  /** Joint, bank or part that it is about, or what of the whole engine */
  readonly place: string;
  /** The state it is asked in, or which of several alike: a temperature, an operating point, a port */
  readonly state?: string;
}

export const atomOf = (question: string, place: string, state?: string): Atom => ({
  atom: `${question}@${place}${state ? `/${state}` : ""}`,
  question,
  place,
  ...(state ? { state } : {}),
});

/** Quantities that a reading was taken at, SI: boost asked, exhaust flow, engine speed. */
export type Point = Readonly<Record<string, number>>;

/** A condition that a fault showed under, and how far from it a reading may lie that answers it. */
export interface Window {
  readonly of: string;
  /** SI; open on the harder side, where physics has one */
  readonly from?: number;
  readonly to?: number;
  /** As a sentence says it: "with at least 2.1 bar asked, as it failed" */
  readonly words: string;
}

/** Whether one point lies within every window; one that says nothing of a quantity lies in none of it. */
const lies = (point: Point, windows: readonly Window[]): boolean =>
  windows.every(({ of, from = Number.NEGATIVE_INFINITY, to = Number.POSITIVE_INFINITY }) => {
    const value = point[of];
    return value !== undefined && value >= from && value <= to;
  });

/** Whether a reading was taken under these conditions: at one point at least that lies within them all. */
export const isUnder = (at: readonly Point[], windows: readonly Window[]): boolean =>
  windows.length === 0 || at.some((point) => lies(point, windows));

/**
 * Answer of a record to one question. Two records may answer an obligation together; what an entry hides or a log lacks
 * does not appear.
 */
export interface Claim extends Atom {
  readonly says: Says;
  /** Operating points it was read at, SI by quantity: one or several points of it */
  readonly at?: readonly Point[];
  /** Seen, heard or felt at that very place: only looking there again answers it, or work there */
  readonly byEye?: true;
  /** Of one that is good: it answers only what was worked on since, there */
  readonly afterWork?: true;
  /** Of one that is bad: what must be met by what answers it, as large as the fault was */
  readonly under?: readonly Window[];
  /** Its name in a sentence: "PCV hose tight" */
  readonly words: string;
  /** The places alone, as an order names them: "PCV hose" */
  readonly about?: string;
  /** Joints whose touching un-proves it; `AT_LARGE` among them: also whatever is no joint of the layout */
  readonly rests: readonly string[];
  /** Sets of atoms that answer it, each set whole; the atom itself where absent */
  readonly metBy?: readonly (readonly Atom[])[];
}

/** Stands in `rests` for all that is no joint: a meter, fuel pressure, an engine's mechanics. */
export const AT_LARGE = "*";

export const saysOf = (outcome: Verdict["outcome"]): Says => (outcome === "pass" ? "good" : outcome === "fail" ? "bad" : "open");

/** Joints that a reading of the whole engine rests on: every joint but the vapour system's own, and whatever is no joint. */
const engineAtLarge = (layout: Layout): string[] => [
  ...layout.joints
    .filter((j) => !(EVAP_ZONES.includes(j.from) && (j.to === "outside" || EVAP_ZONES.includes(j.to))))
    .map((j) => j.id),
  AT_LARGE,
];

const called = (layout: Layout, joint: string) => inSentence(layout.joints.find((j) => j.id === joint)?.name ?? joint);

/** A place tight or not. */
export const tight = (layout: Layout, joint: string, says: Says): Claim => ({
  ...atomOf("tight", joint),
  says,
  words: `${called(layout, joint)} tight`,
  about: called(layout, joint),
  rests: [joint],
});
export const tightAt = (joint: string): Atom => atomOf("tight", joint);

/** A place back on as it was. */
export const seated = (layout: Layout, joint: string, says: Says): Claim => ({
  ...atomOf("seated", joint),
  says,
  words: `${called(layout, joint)} seated`,
  about: called(layout, joint),
  rests: [joint],
});

/** One question about one part: `what` says how it is when it is good. */
export const ofPart = (layout: Layout, question: string, joint: string, what: string, says: Says, condition?: string): Claim => ({
  ...atomOf(question, joint, condition),
  says,
  words: `${called(layout, joint)} ${what}${condition ? ` ${condition}` : ""}`,
  rests: [joint],
});

/** One question about the whole engine. */
export const ofEngine = (layout: Layout, atom: Atom, words: string, says: Says): Claim => ({
  ...atom,
  says,
  words,
  rests: engineAtLarge(layout),
});

/** Atoms that a lean leak's trims answer by: every bank at idle. */
export const trimAtIdle = (banks: 1 | 2): Atom[] => Array.from({ length: banks }, (_, i) => trimAtom(i + 1, "idle"));
export const POINT_CLASSES = ["idle", "1500", "2500", "load"] as const;
export type PointClass = (typeof POINT_CLASSES)[number];
export const trimAtom = (bank: number, point: PointClass): Atom => atomOf("trim", `bank${bank}`, point);

/** Zones that an idling engine sucks at, so that its trims show a leak there. */
const SUCKED_AT_IDLE: readonly string[] = [
  "manifold",
  "booster-branch",
  "crankcase",
  "vacuum-supply",
  "flap-actuator",
  "boost-actuator",
  "egr-actuator",
  "air-actuator",
];

interface Located {
  readonly banks: 1 | 2;
  /** Whether trims say anything on this vehicle */
  readonly trims: boolean;
  /** The locator: its own quiet answers what it found */
  readonly by: "pinch" | "probe" | "look";
  readonly says?: Says;
}

/**
 * A place that a locator tried. Pointed at, it is answered by the same locator quiet there, by that place proved tight, or, where
 * trims would show it, by every bank in its band at idle. Quiet from the first, it says nothing of what another found.
 */
export const pointedAt = (layout: Layout, joints: readonly string[], { banks, trims, by, says = "bad" }: Located): Claim => {
  const at = joints.flatMap((id) => layout.joints.find((j) => j.id === id) ?? []);
  const shows = trims && at.length > 0 && at.every((j: Joint) => SUCKED_AT_IDLE.includes(j.from) || j.pinchable);
  const seals = at.filter((j) => j.kind === "seal");
  const places = seals.length > 0 ? seals : at;
  // What was found by eye and hand bears no other name than its place.
  const atom = atomOf("leak", [...joints].sort().join("+"), by === "look" ? undefined : by);
  return {
    ...atom,
    says,
    words: `${places.map((j) => inSentence(j.name)).join(", ")} tight`,
    about: places.map((j) => inSentence(j.name)).join(", "),
    rests: [...joints],
    metBy: [places.map((j) => tightAt(j.id)), ...(shows ? [trimAtIdle(banks)] : []), [atom]],
  };
};
