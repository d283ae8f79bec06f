import { type Asking, fields, formOf, group, list, number, quantity, type RecordOf, taken, tick } from "../../form";
import { fromSi, parseSwing } from "../../units";
import { checkForm } from "../check-form";
import { airTemperature, ambient, percent, reads, rpm, takenSource } from "../fields";

/** Trims of one bank, percent, as the scan tool shows them. */
const bank = group({
  /** Absent only where the tool shows nothing but the total */
  short: percent("Short-term trim").optional(),
  /** Absent where the log or the tool did not give it: then nobody knows the total */
  long: percent("Long-term trim").optional(),
  /** As the tool adds them up itself, where it shows nothing else */
  total: percent("Total trim").optional(),
  /** sd of the window's mean total trim, percent */
  scatter: number({
    name: "The scatter",
    min: [0, "The scatter is not negative"],
    max: [100, "The scatter is above 100 %"],
  }).optional(),
}).rule("total", "Type either the short-term trim, or the total where the tool shows only that", ({ short, long, total }) =>
  total === undefined ? typeof short === "number" : short === undefined && long === undefined,
);

/** One steady operating point of a fuel-trim survey. */
export const trimPointFields = fields({
  rpm: rpm({ label: "Engine speed, rpm", example: "720" }),
  maf: quantity("mafFlow", {
    label: "MAF, g/s",
    units: ["g/s", "kg/h", "lb/min"],
    example: "2.6",
    missing: "MAF flow is missing",
  }),
  /** Absolute; without it the manifold pressure is reckoned from air flow and engine speed. */
  map: quantity("manifold", { label: "Manifold, kPa absolute", units: ["kPa", "hPa", "inHg", "psi"], example: "33" }).optional(),
  /** Absolute, turbo only */
  chargePressure: quantity("chargePressure", {
    label: "Charge, kPa absolute",
    units: ["kPa", "hPa", "psi"],
    example: "101",
  }).optional(),
  coolant: quantity("coolant").optional(),
  /** False when the ECU said open loop; absent when it was not recorded. */
  closedLoop: tick().optional(),
  /** First and last second of the steady window in its log */
  window: group({ from: number({ name: "The window's start" }), to: number({ name: "The window's end" }) }).optional(),
  banks: list(bank, { min: [1, "Give the trims of at least one bank"], max: [2, "There are one or two banks"] }),
});
export type TrimPoint = RecordOf<typeof trimPointFields>;

/** The points of a survey, all of them of the same banks. */
export const trimPoints = list(trimPointFields.group, {
  label: "Points",
  min: [1, "A survey needs at least one steady point"],
  max: [400, "A survey holds at most 400 steady points"],
  empty: [],
}).rule("banks", "Every point must give the same number of banks", (points) => {
  // What is no list of points yet has its own complaint.
  const banks = (points as readonly Partial<TrimPoint>[]).map((p) => p?.banks).filter(Array.isArray);
  return new Set(banks.map((b) => b.length)).size <= 1;
});

/** The survey: its points come from a log or are typed one by one. */
export const trimsFields = fields({
  points: trimPoints,
  source: takenSource({ kind: "typed" }),
  /** Where this ECU stops correcting, percent; found from repeated extremes, or taken as usual, where nobody asked */
  stop: number({
    name: "The stop",
    label: "This ECU stops correcting at, %",
    bare: "%",
    hint: "Left empty, it is found from trims that lie at one height",
    min: [8, "No ECU stops correcting below 8 %"],
    max: [60, "No ECU corrects beyond 60 %"],
  }).optional(),
  /** Absolute */
  ambient: ambient(),
  intakeTemperature: airTemperature("Intake temperature is missing"),
});
export type TrimSurvey = RecordOf<typeof trimsFields>;

export const trimsForm = checkForm(trimsFields, {
  aside: {
    reads: reads("log", { live: "Live from the scan tool" }),
    /** kPa absolute and °C, where the log had them */
    barometer: taken("Barometer of the log"),
    intake: taken("Intake air of the log"),
  },
  computed: {
    ambient: (_, { known, value }) => {
      const barometer = value("barometer");
      return typeof barometer === "number" ? fromSi(barometer, "kPa", "absolute") : known.ambient;
    },
    intakeTemperature: (_, { known, value }) => {
      const intake = value("intake");
      return typeof intake === "number" ? fromSi(intake, "°C") : known.temperature;
    },
  },
});

interface Engine {
  readonly banks: 1 | 2;
  readonly turbo: boolean;
}

const WHICH = { short: "Short-term", long: "Long-term", total: "Total only" } as const;
type Which = keyof typeof WHICH;
type TrimName = `bank${1 | 2}.${Which}`;
const EXAMPLES = {
  "bank1.short": "4",
  "bank1.long": "12",
  "bank1.total": "16",
  "bank2.short": "1",
  "bank2.long": "2",
  "bank2.total": "3",
} as const satisfies Readonly<Record<TrimName, string>>;

const perTrim = <T>(of: (bank: 1 | 2, which: Which, name: TrimName) => T) =>
  Object.fromEntries(
    ([1, 2] as const).flatMap((bank) =>
      (Object.keys(WHICH) as Which[]).map((which) => [`bank${bank}.${which}`, of(bank, which, `bank${bank}.${which}`)]),
    ),
  ) as Record<TrimName, T>;

/** sd of a bank's total whose parts were typed as the ends they swing between, percent. */
function scatterOf(value: (name: TrimName) => unknown, bank: 1 | 2): number {
  const parts = (Object.keys(WHICH) as Which[]).map((which) =>
    parseSwing(String(value(`bank${bank}.${which}`) ?? "").replaceAll("%", "")),
  );
  return Math.hypot(...parts.map((p) => (p.ok ? p.value.sd : 0)));
}

/** One steady point, typed. What is not typed is not zero: a point without its long-term trim says so. */
export const trimPointForm = formOf<Engine>()(trimPointFields, {
  aside: perTrim((_, which, name) =>
    percent(`${WHICH[which]} trim`, -100, 100, {
      swings: true,
      example: EXAMPLES[name],
      ...(which === "total" ? { hint: "Where the tool shows nothing else" } : {}),
    }),
  ),
  formerly: { chargePressure: "charge" },
  into: perTrim((bank, which) => `banks.${bank - 1}.${which}` as const),
  ask: {
    chargePressure: { when: ({ known }) => known.turbo },
    ...perTrim(
      (bank, which): Asking<Engine, TrimName> => ({
        label: ({ known }) => `${WHICH[which]}${known.banks === 2 ? `, bank ${bank}` : ""}, %`,
        when: ({ known }) => bank <= known.banks,
        needed: ({ known, value }) =>
          which === "short" && !value(`bank${bank}.total`)
            ? `Type the short-term trim${known.banks === 2 ? ` of bank ${bank}` : ""}`
            : undefined,
      }),
    ),
  },
  computed: {
    banks: ({ banks = [] }, { value }) =>
      banks.map((bank, i) => {
        const scatter = scatterOf(value, i === 0 ? 1 : 2);
        return scatter > 0 ? { ...bank, scatter: Number(scatter.toFixed(3)) } : bank;
      }),
  },
});
