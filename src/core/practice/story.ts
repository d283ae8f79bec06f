import type { SymptomId, Trait } from "../faults";
import type { Noise } from "../maths/random";
import type { Fault } from "./car";

/** How often owners tell a symptom of each kind of fault; anything else is told now and then. */
const TELLS: Partial<Record<Trait, Partial<Record<SymptomId, number>>>> = {
  "manifold-leak": { "rough-idle": 0.5, "hiss-idle": 0.25, "cold-worse": 0.4 },
  "branch-leak": { "rough-idle": 0.4, "hiss-idle": 0.5 },
  "booster-leak": { "brake-hard": 0.5, "hiss-idle": 0.45, "rough-idle": 0.3 },
  "crankcase-leak": { "oil-smell": 0.4, "rough-idle": 0.35 },
  "pcv-passes": { "whistle-cap": 0.55, "rough-idle": 0.45, "hiss-idle": 0.3 },
  "purge-leak": { stalls: 0.3, "rough-idle": 0.4, "hard-start-filled": 0.4 },
  "charge-leak": { "hiss-load": 0.6, "low-power": 0.65 },
  "inside-leak": { stalls: 0.45, "rough-idle": 0.45, "low-power": 0.25 },
  "exhaust-air": { "ticking-cold": 0.5, "cold-worse": 0.3 },
  restriction: { "low-power": 0.65 },
  "exhaust-restriction": { "low-power": 0.75 },
  "ports-coked": { "rough-idle": 0.4, "dull-low": 0.25 },
  "crankcase-blocked": { "oil-smell": 0.45 },
  "idle-control": { stalls: 0.5, "rough-idle": 0.5 },
  "actuator-leak": { "dull-low": 0.45, "comes-and-goes": 0.4 },
  "supply-weak": { "dull-low": 0.4, "low-power": 0.4 },
  "valve-stuck": { "dull-low": 0.5, "comes-and-goes": 0.25 },
  "circuit-dead": { "dull-low": 0.5, "comes-and-goes": 0.3 },
  "device-stuck": { "dull-low": 0.5 },
  "fuel-supply": { "low-power": 0.65 },
  "meter-range": { "low-power": 0.4 },
  "engine-mechanical": { "rough-idle": 0.55 },
  "boost-lazy": { "low-power": 0.7 },
  "boost-over": { "low-power": 0.4 },
  "vapour-leak": { "fuel-smell": 0.35 },
  "vent-blocked": { "nozzle-clicks": 0.65, "cap-whoosh": 0.4 },
  "vent-open": { "fuel-smell": 0.15 },
  "filter-loaded": { "regenerates-often": 0.5, "low-power": 0.4, "oil-rises": 0.2 },
  "air-pump-dead": { "pump-howl": 0.3 },
  "air-leak": { "pump-howl": 0.3 },
};
const ALL = [...new Set(Object.values(TELLS).flatMap((t) => Object.keys(t) as SymptomId[]))];
/** Symptoms that only some cars can have, and what they belong to. */
const BELONGS: Partial<Record<SymptomId, Trait>> = {
  "nozzle-clicks": "vent-blocked",
  "cap-whoosh": "vent-blocked",
  "hard-start-filled": "purge-leak",
  "fuel-smell": "vapour-leak",
  "regenerates-often": "filter-loaded",
  "oil-rises": "filter-loaded",
  "pump-howl": "air-leak",
};

/** Kinds of fault that no monitor finds by itself: whoever brings such a car has felt it. */
const FELT: readonly Trait[] = [
  "ports-coked",
  "crankcase-blocked",
  "engine-mechanical",
  "exhaust-restriction",
  "restriction",
  "idle-control",
  "fuel-supply",
];

/** The owner's story of a car with these faults; `stray` is how often something else is told. */
export function symptomsOf(faults: readonly Fault[], noise: Noise, stray: number): SymptomId[] {
  const told = ALL.filter((symptom) => {
    const own = Math.max(0, ...faults.map(({ cause }) => TELLS[cause.trait]?.[symptom] ?? 0));
    return noise.uniform() < (own > 0 || BELONGS[symptom] ? own : stray);
  });
  const felt = faults.flatMap(({ cause }): SymptomId[] => {
    const tells = Object.entries(FELT.includes(cause.trait) ? (TELLS[cause.trait] ?? {}) : {}) as [SymptomId, number][];
    if (tells.some(([symptom]) => told.includes(symptom))) return [];
    return tells
      .toSorted((a, b) => b[1] - a[1])
      .slice(0, 1)
      .map(([symptom]) => symptom);
  });
  return [...told, ...felt.filter((s) => !told.includes(s))];
}

/** The same in a customer's words. */
const WORDS: Partial<Record<SymptomId, string>> = {
  "hiss-idle": "There is a hiss when I stand at the lights.",
  "hiss-load": "It hisses when I pull away uphill.",
  "rough-idle": "It shakes at idle, as if it wanted to die.",
  "low-power": "It does not pull any more, and once it would not go over half throttle at all.",
  "cold-worse": "Mornings are the worst; once warm it is bearable.",
  "brake-hard": "The brake pedal feels hard now and then.",
  "oil-smell": "It smells of oil after a longer drive.",
  "ticking-cold": "It ticks when cold and goes quiet after a few minutes.",
  "whistle-cap": "It whistles, and my brother says it stops when he opens the oil cap.",
  "dull-low": "It is lazy down low and wakes up only when revved.",
  "comes-and-goes": "Some days it is fine, some days not.",
  stalls: "It stalls when I roll up to a junction.",
  "nozzle-clicks": "At the pump the nozzle keeps clicking off.",
  "fuel-smell": "The yard smells of petrol when it has stood.",
  "hard-start-filled": "After filling up it starts badly.",
  "cap-whoosh": "When I open the filler cap air rushes.",
  "regenerates-often": "The fan runs on nearly every evening.",
  "oil-rises": "My neighbour says the oil stands above the mark.",
  "pump-howl": "After a cold start it howls for a minute.",
  "black-smoke": "Up the hill there is a black cloud behind me.",
};

const SINCE = [
  "since the last ferry before the storm",
  "for about three weeks",
  "since it came back from its service across the water",
  "since autumn",
  "for a few days",
] as const;

/** Earlier repairs: what was done to a car before it came here: a part that did not help. */
const REPLACED = ["MAF, by a friend", "Spark plugs", "Oxygen sensor, last month", "Air filter", "Battery"] as const;

/** A complaint as customers tell it. */
export function complaintOf(symptoms: readonly SymptomId[], noise: Noise): string {
  const since = SINCE[Math.floor(noise.uniform(0, SINCE.length))] as string;
  const told = symptoms.flatMap((s) => WORDS[s] ?? []);
  return [`The engine light has been on ${since}.`, ...told].join(" ");
}

export const replacedBefore = (noise: Noise): string => REPLACED[Math.floor(noise.uniform(0, REPLACED.length))] as string;
