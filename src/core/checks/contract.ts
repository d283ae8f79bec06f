import type { ObjectSchema } from "yup";
import type { Family, Rows } from "../faults";
import type { Form, Members } from "../form";
import type { HouseMethods } from "../shop/settings";
import type { Quantity } from "../units";
import type { Layout, OpenFact } from "../vehicle";
import type { Candidate } from "./candidate";
import type { CautionId } from "./cautions";
import type { CheckFacts } from "./check-form";
import type { Atom, Claim } from "./claim";
import type { CheckContext } from "./context";
import type { CheckId } from "./ids";
import type { OperatingPoint } from "./side-by-side";
import type { Unfit } from "./unfit";
import type { Verdict } from "./verdict";

/** Something a setup disturbs: goes on the off-the-car list when done, comes off when put back. */
export interface Displacement {
  readonly joint?: string;
  readonly what: string;
  /** It stands by a command: listed by whoever gives it, for as long as it holds */
  readonly commanded?: true;
}

export interface Plan {
  readonly steps: readonly { readonly text: string; readonly caution?: CautionId }[];
  readonly displaces: readonly Displacement[];
  readonly cautions: readonly CautionId[];
  readonly clocks: readonly { readonly name: string; readonly seconds: number }[];
  /** Faults that would spoil the verdict as things stand: said before the check begins */
  readonly warnings?: readonly string[];
  /** Set when the check does not work on this vehicle: why, and what does. */
  readonly refused?: string;
}

/** One number of a record. */
export interface Reading {
  readonly reading: string;
  readonly value: number;
  readonly unit: string;
  readonly kind?: string;
  readonly point?: number;
  /** s on the record's own clock */
  readonly seconds?: number;
}

/** The reading of a quantity, or none. */
export const readingOf = (reading: string, q: Quantity | undefined, more: Partial<Reading> = {}): Reading[] =>
  q ? [{ reading, value: q.value, unit: q.unit, ...(q.kind ? { kind: q.kind } : {}), ...more }] : [];

/** Whether the engine runs during a check, and how warm it must be. */
export type EngineState = "warm-running" | "running" | "standing";

/** What is set up for a check; what stands already is not set up again. */
export type Tool =
  | "hands"
  | "scan-tool"
  | "gauge"
  | "smoke-machine"
  | "pressure-tester"
  | "air-line"
  | "hand-pump"
  | "multimeter"
  | "enrichment"
  | "gas-analyser"
  | "borescope";

/** The shelves of instruments, by what the engine does meanwhile. */
export const SHELVES = {
  running: "Engine running",
  standing: "Engine standing",
  vapour: "Vapour system",
  electric: "Commanded and electric",
} as const;
export type Shelf = keyof typeof SHELVES;

/** Combined verdict of several records. */
export interface Together {
  /** Observation that is weighed of the joints it lies among */
  readonly observation: string;
  /** Joints the leak lies among, by every comparison */
  readonly within: readonly string[];
  /** Joints a comparison cleared */
  readonly cleared: readonly string[];
  /** One line for each comparison */
  readonly says: readonly string[];
}

/** The operating point that a code was set at, as its freeze frame has it: 1/min, share of full load, K. */
export interface CodeSetAt {
  readonly rpm?: number;
  readonly load?: number;
  readonly coolant?: number;
}

/** A code that is chased, and where it was set. */
export interface CodeSet {
  readonly code: string;
  readonly at: CodeSetAt;
}

/** A machine shown to work: hose clamped, its pressure up. */
export interface MachineProof {
  readonly machine: string;
  /** Gauge pressure as a share of what it was set to; a plain machine has no gauge */
  readonly share?: number;
  /** ISO time, where it was taken for another record of the session, or after this one */
  readonly takenAt?: string;
}

/** The one shape of every check. Functions and all, so it never crosses from server to client. */
export interface CheckKind<Body extends object = object, Aim = unknown, Seen extends string = string> {
  readonly id: CheckId;
  readonly name: string;
  /** Words for passing and failing for this kind; unsure and void are the same for all. */
  readonly words: { readonly pass: string; readonly fail: string };
  /** Purpose, in a line */
  readonly aim: string;
  readonly engine: EngineState;
  readonly tool: Tool;
  /** Why it says nothing on a vehicle; absent where it says something on any */
  readonly unfit?: Unfit;
  /** Fields of its record */
  readonly fields: { readonly schema: ObjectSchema<object>; readonly members: Members };
  /** Form of its record; absent where an instrument takes it by itself */
  readonly form?: Form<object, CheckFacts>;
  plan(context: CheckContext, aim: Aim): Plan;
  judge(record: Body, context: CheckContext): Verdict<Seen>;
  /** Columns of its readings, one number a row, in the units it was taken in, where its fields' columns do not say it all */
  readings?(record: Body): readonly Reading[];
  /** The same by operating point, where a record before a repair is laid against one after it */
  points?(record: Body): readonly OperatingPoint[];
  /** Where it is done, when not among the checks */
  readonly station?: "look";
  /** Whether it measures, so that its pass can prove, or only finds: then its "bad" counts and its "good" does not */
  readonly role: "measures" | "locates";
  /** Claims of a record on each question it put; nothing of what its setup hid or its log lacks */
  claims(record: Body, verdict: Verdict, context: CheckContext): readonly Claim[];
  /** Where its instrument lies; none for what is done at a station of its own */
  readonly shelf?: Shelf;
  /** Combined verdict of several records of a circuit, oldest first, where no single one does */
  together?(runs: readonly { readonly record: Body; readonly verdict: Verdict }[], layout: Layout): Together | undefined;
  /** Whether this verdict leaves the same check to be done once more, otherwise: a seat that holds warm, tried cold */
  repeats?(verdict: Verdict): boolean;
  /** Facts of the vehicle that its pass rests on: while one is not known it clears nothing */
  readonly needs?: readonly OpenFact[];
  /** Reset that the ECU may be given once the atom is shown good since the last work on these places, or a new part is in */
  readonly resets?: {
    readonly name: string;
    readonly atom: Atom;
    readonly places: readonly string[];
    /** True for a load that stays in the part whatever is burned or blown out of it: only a new one, or one cleaned off the car and proved so, has none */
    readonly stays?: string;
  };
  /** Obligations that chased codes put on it, whatever was measured; and how it is said where nothing has shown it */
  readonly codes?: {
    claims(codes: readonly CodeSet[], context: CheckContext): readonly Claim[];
    missing(words: string, places: readonly string[], layout: Layout): string;
  };
  /** Families of faults it tells about; the engine's where nothing else is said */
  readonly families?: readonly Family[];
  /** Every way to do it on this vehicle, of the families a job is weighed over */
  candidates(context: CheckContext, families: readonly Family[]): readonly Candidate<Seen>[];
  /** Likelihood rows: what each observation of its judge weighs for every cause */
  readonly rows: Rows;
  /** Fields of its record that no verdict rests on by themselves, each with why: whatever stands there, it says the same */
  readonly irrelevant?: Readonly<Record<string, string>>;
  /** It puts many joints to the test at once: the next run is worth what the last left out */
  readonly sweeps?: true;
  /** The circuit that an inspection looks into by it, minutes, and the inspections that cover it */
  readonly inspects?: {
    readonly circuit: string;
    readonly minutes: number;
    readonly by: readonly HouseMethods["inspection"][];
  };
  /** It takes nothing off and shuts nothing off: done last, it undoes no other proof, and none is undone after it */
  readonly onlyReads?: true;
  /** Why it cannot be done on a hot engine; `waits` where even a warm one must cool down first */
  readonly hot?: { readonly why: string; readonly waits?: true };
  /** It wants a tank that has stood: fuel that goes on steaming spoils it */
  readonly soaked?: true;
  /** The house methods that begin with it on a lean code */
  readonly locator?: readonly HouseMethods["firstLocator"][];
  /** Joints that it can be done at on this vehicle; absent where it is about the whole car, or chooses its way in itself */
  places?(context: Pick<CheckContext, "layout">): readonly string[];
  /** The part or way in that a record is about; absent where the check is about the whole car */
  place?(record: Body): string;
  /** Each part that a record can be about owes its own proof, and is compared with itself */
  readonly byPart?: true;
  /** Joints that the check itself takes off, plugs or shuts: standing there while it is read is its own setup */
  setup?(record: Body): readonly string[];
  /** Parts that its set-up takes off that is no joint, as its plan says it: part of it too */
  readonly takesOff?: readonly string[];
  /** Of these, what its gauge or tee stood in the place of: no reading of it says anything of that joint */
  hides?(record: Body): readonly string[];
  /** Joints that the check itself commands */
  ownCommands?(record: Body): readonly string[];
  /** The proof of the machine that its reading rests on; absent where no machine is proved */
  machineProof?(record: Body): MachineProof | undefined;
  /** True for a record of a part that is not on the car: it says nothing of the car */
  onBench?(record: Body): boolean;
}

/** The verdict word of an outcome, as this kind of check says it. */
export function verdictWord(kind: Pick<CheckKind, "words">, { outcome, word }: Pick<Verdict, "outcome" | "word">): string {
  if (word) return word;
  return outcome === "pass"
    ? kind.words.pass
    : outcome === "fail"
      ? kind.words.fail
      : outcome === "unsure"
        ? "Not sure yet"
        : "Void — proves nothing";
}
