import { CHECKS, jointName } from "../checks";
import { BAY_INSTRUMENTS, type BayInstrument, INSTRUMENT_FAULTS, type InstrumentFault } from "../devices/instrument-fault";
import { LAMPS, type Light } from "../devices/light";
import { type Cause, CONFIRM_MINUTES, FAMILY_IDS } from "../faults";
import type { Bodies } from "../journal/entries";
import type { JournalEntry } from "../journal/envelope";
import { type Line, resolveLines } from "../journal/proof/order";
import { inSentence } from "../sentence";
import { candidatesOf, type EngineNow, waitFor } from "../suspects";
import type { Car, Fault } from "./car";
import type { PracticeCase } from "./case";
import { MISHAPS } from "./mishaps";

/** Costs of an hour in the bay, of a hint, and of a car that comes back, in the island's marks. */
export const PRICES = { minute: 1.2, hint: 12, wait: 8, comeback: 140, crossing: 60 } as const;
/** Cost of a part by what is wrong with it; one that nobody named, marks. */
const PART = 45;
const PARTS: Partial<Record<Cause["trait"], number>> = {
  "branch-leak": 12,
  "duct-leak": 30,
  "booster-leak": 35,
  "manifold-leak": 48,
  "meter-low": 160,
  "meter-range": 160,
  "inside-leak": 210,
  "filter-loaded": 240,
  "filter-broken": 900,
  "egr-blocked": 190,
  "egr-cooler-leak": 320,
  "boost-lazy": 640,
  "air-pump-dead": 220,
  "exhaust-restriction": 520,
  "fuel-supply": 150,
};

/** One thing that was done, with what it cost. */
export interface BayStep {
  readonly entry: string;
  readonly name: string;
  readonly minutes: number;
  readonly money: number;
  /** A consequence that somebody should know of */
  readonly mishap?: string;
  /** An instrument was looked over: its name says what came of it */
  readonly lookedOver?: true;
}

/** The bay as it stands: the car with what was done to it, what it cost so far, and what its ECU holds. */
export interface World {
  readonly car: Car;
  /** Cured by a repair at its place */
  readonly cured: readonly Fault[];
  /** Tightened by hand: quiet now, and back within the week */
  readonly asleep: readonly Fault[];
  /** Broken by what was done here */
  readonly broken: readonly Fault[];
  readonly steps: readonly BayStep[];
  readonly minutes: number;
  readonly money: number;
  readonly hints: number;
  readonly engine: EngineNow;
  readonly light: Light;
  /** Instrument faults: out of order among the bay's instruments: nobody is told before it was looked over */
  readonly instruments: Readonly<Partial<Record<BayInstrument, InstrumentFault>>>;
  /** History of its ECU: codes cleared, and drives long enough for its monitors, with the car as it was then */
  readonly lived: readonly ("cleared" | Car)[];
}

/** A wait from which the engine is cold, min. */
const COLD_AFTER = 240;
/** A drive shorter than this runs no monitor, min. */
const RUNS_MONITORS = 10;
/** Faults that a hand at the cap or clamp quietens for a while. */
const TIGHTENS: readonly string[] = [
  "filler-cap",
  "oil-cap",
  "dipstick",
  "duct-clamp",
  "hot-pipe-clamp",
  "cooler-inlet",
  "cooler-outlet",
  "gauge-port",
  "breather-duct",
  "air-hose-joint",
];

type Mutable = {
  -readonly [K in keyof World]: World[K] extends readonly (infer Item)[] ? Item[] : World[K];
};

/** Faults that a place that was worked on holds of a fault: the fault itself, or the joint that it sits at. A wire is no valve. */
const worksOn = (places: readonly string[], { cause }: Fault): boolean =>
  places.includes(cause.id) || (cause.joint !== undefined && places.includes(cause.joint) && cause.trait !== "circuit-dead");

/** The car with what is cured and quiet left out, and what was broken put in. */
const standing = ({ car: whole, cured, asleep, broken }: Pick<World, "car" | "cured" | "asleep" | "broken">, first: Car): Car => {
  const gone = (f: Fault) => [...cured, ...asleep].some((g) => g.cause.id === f.cause.id);
  const faults = [...first.faults, ...broken].filter((f) => !gone(f));
  return faults.length === whole.faults.length && faults.every((f, i) => f === whole.faults[i]) ? whole : { ...first, faults };
};

/** The bay after everything in its journal. Pure: the same journal is the same bay. */
export function worldOf(given: PracticeCase, entries: readonly JournalEntry[]): World {
  const world: Mutable = {
    car: given.car,
    cured: [],
    asleep: [],
    broken: [],
    steps: [],
    minutes: 0,
    money: 0,
    hints: 0,
    engine: given.arrives,
    light: given.light,
    instruments: given.instruments,
    lived: [],
  };
  const { lines } = resolveLines(entries);
  const undone = new Set(lines.flatMap((l) => (l.kind === "undone" ? [(l.body as Bodies["undone"]).repair] : [])));
  const findings = new Map(lines.flatMap((l) => (l.kind === "finding" ? [[l.id, l.body as Bodies["finding"]] as const] : [])));
  for (const line of lines) {
    step(world, line, findings, undone);
    world.car = standing(world, given.car);
  }
  world.minutes = Math.round(world.steps.reduce((sum, s) => sum + s.minutes, 0));
  world.money = Math.round(world.steps.reduce((sum, s) => sum + s.money, 0));
  return world;
}

function step(world: Mutable, line: Line, findings: ReadonlyMap<string, Bodies["finding"]>, undone: ReadonlySet<string>): void {
  const spend: Spend = (name, minutes, money = 0, mishap) => {
    const cost = money + minutes * PRICES.minute;
    world.steps.push({ entry: line.id, name, minutes, money: cost, ...(mishap ? { mishap } : {}) });
  };
  switch (line.kind) {
    case "bay":
      bayAct(world, line.body as Bodies["bay"], spend);
      break;
    case "check":
      check(world, line.body as Bodies["check"], spend);
      break;
    case "repair":
      if (!undone.has(line.id)) repair(world, line.body as Bodies["repair"], findings, spend);
      break;
    case "codes":
      spend("Codes read", 4);
      break;
    case "codes-cleared":
      world.lived.push("cleared");
      spend("Codes cleared", 2);
      break;
    case "drive": {
      const { minutes } = line.body as Bodies["drive"];
      spend("Driven", minutes);
      world.engine = "warm";
      if (minutes >= RUNS_MONITORS) world.lived.push(world.car);
      break;
    }
    case "complaint-tried":
      spend("Complaint tried again", 10);
      break;
    case "monitor":
      spend("Monitor read", 3);
      break;
  }
}

type Spend = (name: string, minutes: number, money?: number, mishap?: string) => void;

function bayAct(world: Mutable, { act, minutes = 0, joint, light, instrument }: Bodies["bay"], spend: Spend): void {
  if (act === "hint") {
    world.hints++;
    spend("Hint", 0, PRICES.hint);
  }
  if (act === "wait") {
    // Nobody stands beside a car that cools: the wait has its own price.
    spend(`Waited ${minutes} min`, 0, PRICES.wait);
    if (minutes >= COLD_AFTER) world.engine = "cold";
  }
  if (act === "end" && minutes > 0) spend(`Thought it over, ${minutes} min`, minutes);
  if (act === "light" && light) {
    world.light = light;
    spend(`${LAMPS[light.lamp]}, door ${light.door}`, 1);
  }
  if (act === "look-over" && instrument) {
    const { [instrument]: fault, ...rest } = world.instruments;
    world.instruments = rest;
    spend(`${BAY_INSTRUMENTS[instrument]} checked: ${fault ? INSTRUMENT_FAULTS[fault] : "nothing wrong there"}`, 4);
    world.steps.push({ ...(world.steps.pop() as BayStep), lookedOver: true });
  }
  if (act === "tighten" && joint) {
    const name = inSentence(jointName(world.car.context.layout, joint));
    const quiet = TIGHTENS.includes(joint) ? world.car.faults.filter((f) => f.cause.joint === joint) : [];
    world.asleep.push(...quiet);
    spend(`Tightened the ${name} by hand`, 1);
  }
}

function check(world: Mutable, { check: kind, record }: Bodies["check"], spend: Spend): void {
  const { car } = world;
  const place = CHECKS[kind].place?.(record);
  const ways = candidatesOf(car.context, FAMILY_IDS).filter((c) => c.check === kind);
  const way = ways.find((c) => c.place === place) ?? ways[0];
  const waits = waitFor(kind, world.engine);
  world.engine = CHECKS[kind].engine !== "standing" ? "warm" : CHECKS[kind].hot?.waits ? "cold" : world.engine;
  const mishap = MISHAPS[kind]?.(record, car);
  world.broken.push(...(mishap?.breaks ?? []));
  spend(CHECKS[kind].name, (way?.minutes ?? 8) + waits, mishap?.bill ?? 0, mishap?.says);
}

function repair(world: Mutable, body: Bodies["repair"], findings: ReadonlyMap<string, Bodies["finding"]>, spend: Spend): void {
  const finding = body.finding && findings.get(body.finding);
  const places = [...(body.places ?? []), ...(finding ? [finding.joint] : [])];
  const hits =
    body.permanence === "bypass"
      ? []
      : [...world.car.faults, ...world.asleep].filter((f) => worksOn(places, f) && !world.cured.includes(f));
  world.cured.push(...hits);
  world.broken = world.broken.filter((f) => !hits.includes(f));
  const minutes = Math.max(body.labourMinutes, ...hits.map((f) => CONFIRM_MINUTES[f.cause.trait]), hits.length === 0 ? 10 : 0);
  const parts = hits.length > 0 ? hits.reduce((sum, f) => sum + (PARTS[f.cause.trait] ?? PART), 0) : PART;
  spend(body.what, minutes, parts, hits.length === 0 ? "work on something sound: the fault is where it was" : undefined);
}

/** Faults that are still in it, quiet ones too: what comes back. */
export const stillThere = ({ car, asleep, cured }: Pick<World, "car" | "asleep" | "cured">): Fault[] => [
  ...car.faults,
  ...asleep.filter((f) => !cured.includes(f)),
];
