import type { Customer } from "../customer";
import { spanOf } from "./envelope";
import type { JobState } from "./state";

/** Subjects that a customer is called about. */
export const CALLS = {
  "how-it-held": "Ask how it held",
  conditional: "Handed over before its proof was complete: ask what came of it",
  recheck: "Re-check a temporary repair",
  "set-aside": "Re-check what was left",
} as const;
export type CallAbout = keyof typeof CALLS;

/** One reason to call a customer. */
export interface Call {
  /** Day, like 2026-01-31 */
  readonly on: string;
  readonly about: CallAbout;
  /** Work done or left, in the words of whoever wrote it */
  readonly what: string;
}

/** The same with the job that it is about, and whom to call. */
export interface CustomerCall extends Call {
  readonly jobId: string;
  readonly number: number;
  readonly vehicle: string;
  readonly registration: string;
  /** Left out where nobody is named, or was erased */
  readonly customer?: Customer;
}

const DAY = 24 * 3600_000;
/** Where the handover names no day: after so many days, proved or not. */
const AFTER = { proved: 28, conditional: 7 } as const;
/** Nobody is asked how it held so many days later. */
const LAPSES = 120;

const dayOf = (time: number) => new Date(time).toISOString().slice(0, 10);

/**
 * When a customer is to be called, and why, the first first: how it held, what is temporary, what was left. What was heard since
 * answers what was due by then. Nobody is called about practice.
 */
export function callsOf(state: Pick<JobState, "practice" | "handover" | "repairs" | "setAside" | "outcomes">): Call[] {
  const { practice, handover, repairs, setAside, outcomes } = state;
  if (practice !== undefined) return [];
  const heard = outcomes.map((o) => Date.parse(o.at));
  const answered = (on: string) => heard.some((time) => dayOf(time) >= on);
  const lasting = repairs.filter((r) => !r.undone && r.body.permanence !== "bypass");
  const due: Call[] = [
    ...lasting.flatMap(({ body }): Call[] =>
      body.permanence === "temporary" && body.recheck ? [{ on: body.recheck, about: "recheck", what: body.what }] : [],
    ),
    ...setAside.map((s): Call => ({ on: s.date, about: "set-aside", what: s.reason })),
  ].filter((call) => !answered(call.on));
  return [...due, ...followUp(handover, lasting, heard)].toSorted((a, b) => a.on.localeCompare(b.on));
}

/** How what was handed over held: asked once, unless somebody said so since. */
function followUp(handover: JobState["handover"], lasting: JobState["repairs"], heard: readonly number[]): Call[] {
  if (!handover) return [];
  const { conditional, call, summary } = handover;
  const handed = Date.parse(handover.at);
  // What was done to it afterwards is handed over anew.
  if (heard.some((time) => time >= handed) || lasting.some((r) => spanOf(r.at).from > handed)) return [];
  if (lasting.length === 0 && !conditional && call === undefined) return [];
  const after = handed + AFTER[conditional ? "conditional" : "proved"] * DAY;
  return [{ on: call ?? dayOf(after), about: conditional ? "conditional" : "how-it-held", what: summary }];
}

/** Whether the car is to be looked at again, and not only asked about. */
export const isDueAtCar = ({ about }: Call): boolean => about === "recheck" || about === "set-aside";

/** Whether a call is not worth making any more: nobody is asked months later how it held; what is due stays due. */
export const lapsed = (call: Call, today: string): boolean =>
  !isDueAtCar(call) && Date.parse(today) - Date.parse(call.on) > LAPSES * DAY;
