import * as yup from "yup";
import { line, needed, strictObject } from "./input";

/** A smoke run as a second device sees it, once a second. */
export interface LiveRun {
  readonly by: string;
  readonly machine: string;
  /** s since the hose went on */
  readonly seconds: number;
  readonly running: boolean;
  readonly flow: { readonly value: number; readonly max: number; readonly unit: string };
  /** Gauge */
  readonly pressure: { readonly value: number; readonly unit: string };
  /** State of the settling, in words */
  readonly words: string;
  /** Names of joints where smoke was seen */
  readonly seen: readonly string[];
}

export const LIVE_CALLS = { more: "More", less: "Less", there: "There!" } as const;
export type LiveCall = keyof typeof LIVE_CALLS;

const reading = yup.number().min(-1e6).max(1e6).required();

export const liveRunSchema = strictObject({
  by: needed("Who", "Say who you are first", 80),
  machine: line("The machine", 80).defined(),
  seconds: yup.number().min(0).max(86400).required(),
  running: yup.boolean().required(),
  flow: strictObject({ value: reading, max: reading, unit: line("Unit", 20).required() }).required(),
  pressure: strictObject({ value: reading, unit: line("Unit", 20).required() }).required(),
  words: line("The words", 200).defined(),
  seen: yup.array().of(line("The joint", 80).required()).max(60).required(),
});

export const liveCallSchema = strictObject({
  call: yup
    .mixed<LiveCall>()
    .oneOf(Object.keys(LIVE_CALLS) as LiveCall[], "A call is more, less or there")
    .required(),
});
