import { type Field, formOf, type Given } from "../../form";
import { fromSi, parseSwing } from "../../units";
import { AIR_ELSEWHERE, checkForm, given, readsField } from "../known";
import { type TrimPoint, type TrimSurvey, trimPointSchema, trimSurveySchema } from "./record";

/** The survey: its points come from a log or are typed one by one. */
export const trimsForm = checkForm<TrimSurvey>()({
  schema: trimSurveySchema,
  fields: {
    reads: readsField("log", ["live", "Live from the scan tool"]),
    points: { type: "taken", label: "Points", empty: [] },
    source: { type: "taken", label: "Where they come from", empty: { kind: "typed" } },
    /** kPa absolute and °C, where the log had them */
    barometer: { type: "taken", label: "Barometer of the log", aside: true },
    intake: { type: "taken", label: "Intake air of the log", aside: true },
    stop: {
      type: "number",
      label: "This ECU stops correcting at, %",
      bare: "%",
      hint: "Left empty, it is found from trims that lie at one height",
    },
  },
  also: (_, { known, holds }) => {
    const [barometer, intake] = [holds("barometer"), holds("intake")];
    return {
      ...given("ambient", typeof barometer === "number" ? fromSi(barometer, "kPa", "absolute") : known.ambient),
      ...given("intakeTemperature", typeof intake === "number" ? fromSi(intake, "°C") : known.temperature),
    };
  },
  keeps: ["ambient", "intakeTemperature"],
  elsewhere: AIR_ELSEWHERE,
});

interface Engine {
  readonly banks: 1 | 2;
  readonly turbo: boolean;
}

const WHICH = { short: "Short-term", long: "Long-term", total: "Total only" } as const;
type Which = keyof typeof WHICH;

const trim = <Bank extends 1 | 2>(bank: Bank, which: Which, example: string): Field<Engine> => ({
  type: "number",
  at: `banks.${bank - 1}.${which}`,
  bare: "%",
  swings: true,
  example,
  label: ({ known }) => `${WHICH[which]}${known.banks === 2 ? `, bank ${bank}` : ""}, %`,
  hint: which === "total" ? "Where the tool shows nothing else" : undefined,
  when: ({ known }) => bank <= known.banks,
  needed: ({ known, holds }) =>
    which === "short" && !holds(`bank${bank}.total`)
      ? `Type the short-term trim${known.banks === 2 ? ` of bank ${bank}` : ""}`
      : undefined,
});

/** sd of a bank's total whose parts were typed as the ends they swing between, percent. */
function scatterOf({ holds }: Given<Engine>, bank: number): number {
  const parts = Object.keys(WHICH).map((which) => parseSwing(String(holds(`bank${bank}.${which}`) ?? "").replaceAll("%", "")));
  return Math.hypot(...parts.map((p) => (p.ok ? p.value.sd : 0)));
}

/** One steady point, typed. What is not typed is not zero: a point without its long-term trim says so. */
export const trimPointForm = formOf<TrimPoint, Engine>()({
  schema: trimPointSchema,
  fields: {
    rpm: { type: "number", label: "Engine speed, rpm", bare: "1/min", example: "720" },
    maf: {
      type: "quantity",
      label: "Air meter, g/s",
      band: "mafFlow",
      unit: "g/s",
      units: ["g/s", "kg/h", "lb/min"],
      example: "2.6",
    },
    map: {
      type: "quantity",
      label: "Manifold, kPa absolute",
      band: "manifold",
      unit: "kPa",
      units: ["kPa", "hPa", "inHg", "psi"],
      example: "33",
    },
    charge: {
      type: "quantity",
      label: "Charge, kPa absolute",
      at: "chargePressure",
      band: "chargePressure",
      unit: "kPa",
      units: ["kPa", "hPa", "psi"],
      example: "101",
      when: ({ known }) => known.turbo,
    },
    "bank1.short": trim(1, "short", "4"),
    "bank1.long": trim(1, "long", "12"),
    "bank1.total": trim(1, "total", "16"),
    "bank2.short": trim(2, "short", "1"),
    "bank2.long": trim(2, "long", "2"),
    "bank2.total": trim(2, "total", "3"),
  },
  also: (read, given) => {
    const banks = (read.banks ?? []) as TrimPoint["banks"];
    return {
      banks: banks.map((bank, i) => {
        const scatter = scatterOf(given, i + 1);
        return scatter > 0 ? { ...bank, scatter: Number(scatter.toFixed(3)) } : bank;
      }),
    };
  },
});
