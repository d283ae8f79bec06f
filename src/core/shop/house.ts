import * as yup from "yup";
import { strictObject } from "../input";

/** Where practitioners disagree: each question with its schools, the shop's default first, and the family of faults it is a way to find, if one. */
export const HOUSE_QUESTIONS = {
  dye: {
    asks: "Dye in the smoke fluid",
    schools: { clean: "Clean fluid only", uv: "UV dye, for residue at tiny leaks" },
  },
  verdictBy: {
    asks: "Smoke verdict by",
    schools: { flow: "Ball (flow), decay for small leaks", gauge: "Gauge (pressure)", decay: "Decay after shut-off" },
  },
  firstLocator: {
    asks: "First locator on a lean code",
    finds: "engine",
    schools: { smoke: "Smoke", gas: "Enrichment gas", spray: "Water or soap spray" },
  },
  trimLimit: {
    asks: "Trim limit",
    schools: { common: "Act beyond ±10 %, good within ±5 %", strict: "Strict: act beyond ±5 %" },
  },
  boostBy: {
    asks: "Boost leak by",
    finds: "boost",
    schools: { "smoke-first": "Low-pressure smoke first, then air", air: "Air at boost pressure" },
  },
  evapEntry: {
    asks: "EVAP entry",
    finds: "evap",
    schools: { "service-port": "Service port where fitted", "filler-neck": "Filler neck", "purge-line": "Purge line" },
  },
  evapGas: {
    asks: "Gas for EVAP smoke",
    schools: { inert: "Nitrogen or other inert gas", air: "Shop air" },
  },
  weakValve: {
    asks: "Valve found weak",
    schools: { replace: "Replace it", clean: "Clean it and test again" },
  },
  cheapSuspect: {
    asks: "Cheap suspect first",
    schools: { test: "Test first, unless the part costs less than the test", swap: "Swap it at once" },
  },
  inspection: {
    asks: "An inspection covers",
    schools: {
      smoke: "Intake and vapour system, by smoke",
      all: "Every circuit of the car",
      intake: "The intake alone",
    },
  },
  english: {
    asks: "English",
    schools: { british: "British: petrol, bonnet", american: "American: gasoline, hood" },
  },
  totalTrim: {
    asks: "Total trim",
    schools: { product: "(1 + short)(1 + long)", sum: "short + long" },
  },
} as const;

type Questions = typeof HOUSE_QUESTIONS;
export type HouseQuestion = keyof Questions;
/** The school the shop follows on each question. */
export type HouseMethods = { readonly [Q in HouseQuestion]: keyof Questions[Q]["schools"] };

const schoolsOf = (question: HouseQuestion) => Object.keys(HOUSE_QUESTIONS[question].schools);
const QUESTIONS = Object.keys(HOUSE_QUESTIONS) as HouseQuestion[];

export const DEFAULT_HOUSE = Object.fromEntries(QUESTIONS.map((q) => [q, schoolsOf(q)[0]])) as unknown as HouseMethods;

export const houseSchema = strictObject(
  Object.fromEntries(QUESTIONS.map((q) => [q, yup.string().oneOf(schoolsOf(q)).required()])) as Record<
    HouseQuestion,
    yup.StringSchema
  >,
);
