import { contextOf } from "../checks";
import { BAY_INSTRUMENTS, type BayInstrument, FAULTS_OF, type InstrumentFault } from "../devices/instrument-fault";
import { type Light, STILL_AND_LIT } from "../devices/light";
import { type Cause, causesOf, type Family } from "../faults";
import { BadInput } from "../input";
import type { Bodies, CodeRead, FreezeFrame } from "../journal/entries";
import { type Noise, seededNoise } from "../maths/random";
import { DEFAULT_SHOP } from "../shop/settings";
import type { EngineNow } from "../suspects";
import { fromSi } from "../units";
import { layoutOf, type VehicleRecord, vehicleFacts } from "../vehicle";
import { type Car, type Fault, stateAt } from "./car";
import { type CaseSpec, CODE_SYMPTOMS, type ComposedCase, caseCode, type DrawnCase, type Level, readCaseCode } from "./code";
import { monitorCodes } from "./ecu-codes";
import { complaintOf, replacedBefore, symptomsOf } from "./story";
import { vehicleFor } from "./vehicles";

/** A case of the practice bay: the car with what is hidden in it, and what comes in with it. */
export interface PracticeCase {
  readonly code: string;
  readonly family: Family;
  readonly facts: VehicleRecord;
  readonly car: Car;
  readonly story: Bodies["story"];
  /** Codes that have nothing to do with it */
  readonly strays: readonly string[];
  readonly arrives: EngineNow;
  /** The bay as it is come into: what is out of order of its instruments, and the light */
  readonly instruments: Readonly<Partial<Record<BayInstrument, InstrumentFault>>>;
  readonly light: Light;
}

/** Codes that any car may carry and that lead away from its fault. */
const STRAYS = ["P0562", "P0128", "P0420"] as const;
/** How often a car of each level tells what it does not have. */
const STRAY_SYMPTOM: Record<Level, number> = { 1: 0, 2: 0.06, 3: 0.06 };

/** Causes that a case of a family is drawn from, in their fixed order. */
export function playableCauses(facts: VehicleRecord, family: Family): readonly Cause[] {
  const vehicle = vehicleFacts(facts);
  return causesOf(layoutOf(vehicle), vehicle, [family]).filter((c) => c.id !== "healthy");
}

const pick = <T>(noise: Noise, list: readonly T[], weight: (item: T) => number): T => {
  let left = noise.uniform(
    0,
    list.reduce((sum, item) => sum + weight(item), 0),
  );
  return (list.find((item) => {
    left -= weight(item);
    return left <= 0;
  }) ?? list.at(-1)) as T;
};

function drawnFaults(spec: DrawnCase, playable: readonly Cause[], noise: Noise): Fault[] {
  const causes = playable.filter((c) => !c.uncoded);
  // A plain one is one that shows.
  const size = () => (spec.level === 1 ? noise.uniform(0.35, 1) : noise.uniform());
  const first = pick(noise, causes, (c) => c.prior);
  if (spec.level < 3) return [{ cause: first, size: size() }];
  const rest = causes.filter((c) => c.trait !== first.trait && c.joint !== first.joint);
  const faults = [{ cause: first, size: size() }];
  return rest.length === 0 ? faults : [...faults, { cause: pick(noise, rest, (c) => c.prior), size: size() }];
}

/** Throws BadInput where a fault is none of this vehicle's. */
function composedFaults(spec: ComposedCase, causes: readonly Cause[]): Fault[] {
  if (spec.faults.length === 0) throw new BadInput("A case has one fault or two", "code");
  return spec.faults.map(({ cause, size }) => {
    const known = causes[cause];
    if (!known) throw new BadInput("This case names a fault that its car cannot have", "code");
    return { cause: known, size };
  });
}

/** Operating point of the engine as a code was set, as its freeze frame keeps it. */
const frameOf = (car: Car): FreezeFrame => {
  const idle = stateAt(car, {});
  const petrol = car.context.vehicle.fuel === "petrol";
  return {
    rpm: Math.round(idle.rpm / 10) * 10,
    load: Math.round((100 * idle.map) / car.ambient),
    coolant: fromSi(361, "°C"),
    ...(petrol ? { short: 1.5, long: Math.round(1000 * (idle.trims[0] ?? 0)) / 10 } : {}),
  };
};

/** Codes its ECU has stored as it comes in: the first with its freeze frame, and what is left of other times. */
export function arrivalCodes({ car, strays }: Pick<PracticeCase, "car" | "strays">): CodeRead[] {
  return [
    ...monitorCodes(car).map((code, i): CodeRead => ({ code, status: "stored", ...(i === 0 ? { frame: frameOf(car) } : {}) })),
    ...strays.map((code): CodeRead => ({ code, status: "history" })),
  ];
}

/** The case that a code stands for. The same code is the same case. Throws BadInput where the code is none. */
export function practiceCase(code: string): PracticeCase {
  return caseOf(readCaseCode(code));
}

/** The case of a specification. */
export function caseOf(spec: CaseSpec): PracticeCase {
  const drawn = "seed" in spec;
  const seed = drawn ? spec.seed * 4 + spec.level : spec.vehicle * 7919 + spec.symptoms;
  const facts = vehicleFor(spec.family, seededNoise(drawn ? seed : spec.vehicle));
  const noise = seededNoise(seed + 1e6);
  const causes = playableCauses(facts, spec.family);
  const faults = drawn ? drawnFaults(spec, causes, noise) : composedFaults(spec, causes);
  const car: Car = {
    seed,
    context: contextOf(facts, DEFAULT_SHOP),
    faults,
    ambient: noise.uniform(97e3, 102e3),
    temperature: noise.uniform(283, 299),
    fuelLevel: Math.round(noise.uniform(25, 75)),
  };
  const level = drawn ? spec.level : 1;
  const symptoms = drawn
    ? symptomsOf(faults, noise, STRAY_SYMPTOM[level])
    : CODE_SYMPTOMS.filter((_, i) => spec.symptoms & (1 << i));
  const misleads = drawn ? level > 1 : spec.misleads;
  const strays = misleads ? [STRAYS[Math.floor(noise.uniform(0, STRAYS.length))] as string] : [];
  return {
    code: caseCode(spec),
    family: spec.family,
    facts,
    car,
    story: {
      complaint: complaintOf(symptoms, noise),
      symptoms,
      verified: "not-tried",
      ...(misleads ? { replacedBefore: replacedBefore(noise) } : {}),
    },
    strays,
    arrives: noise.uniform() < 0.5 ? "warm" : "cold",
    ...bayOf(misleads, noise),
  };
}

/** One bay in so many of the cases that mislead has an instrument out of order, and one in so many its door open. */
const OUT_OF_ORDER = 0.4;
const DOOR_OPEN = 0.3;

/** The bay that a case is met in: one that misleads does so with its instruments and its light as well. */
function bayOf(misleads: boolean, noise: Noise): Pick<PracticeCase, "instruments" | "light"> {
  if (!misleads) return { instruments: {}, light: STILL_AND_LIT };
  const all = (Object.keys(BAY_INSTRUMENTS) as BayInstrument[]).flatMap((which) =>
    FAULTS_OF[which].map((fault) => [which, fault] as const),
  );
  const one = all[Math.floor(noise.uniform(0, all.length))];
  const out = noise.uniform() < OUT_OF_ORDER && one;
  return {
    instruments: out ? { [out[0]]: out[1] } : {},
    light: noise.uniform() < DOOR_OPEN ? { lamp: "none", door: "open" } : STILL_AND_LIT,
  };
}
