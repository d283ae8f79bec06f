import type { CodeSetAt } from "../../checks";
import { percent } from "../../checks/fields";
import {
  choice,
  type Draft,
  type FormState,
  fields,
  formOf,
  group,
  list,
  number,
  pattern,
  quantity,
  type RecordOf,
  recalling,
  text,
} from "../../form";
import { toSi, ZERO_CELSIUS } from "../../units";
import { entryKind } from "./entry-kind";

const CODE_STATUSES = {
  current: "Current",
  pending: "Pending",
  stored: "Stored",
  permanent: "Permanent",
  history: "History",
} as const;

/** Values of a freeze frame (SAE J1979 service 02) that make an operating point. */
const frame = group({
  rpm: number({ name: "RPM", min: [0, "RPM cannot be negative"], max: [12000, "RPM is above any engine's"] }).optional(),
  /** Calculated load, percent */
  load: percent("The load", 0, 100).optional(),
  coolant: quantity("coolant").optional(),
  /** Trims of bank 1, percent */
  short: percent("Short-term trim").optional(),
  long: percent("Long-term trim").optional(),
});
export type FreezeFrame = (typeof frame)["value"];

/** One code as it was read with a scan tool. */
const codeReadFields = fields({
  code: pattern(/^[A-Za-z0-9-]{2,12}$/, "A code is 2 to 12 letters and digits, like P0171", {
    label: "Code",
    example: "P0171",
    missing: "Type the code, like P0171",
  }),
  status: choice(CODE_STATUSES, { label: "Status" }),
  freezeFrame: text({
    name: "Freeze frame",
    label: "Freeze frame (optional)",
    example: "720 rpm, 92 °C, load 24 %",
    max: 500,
  }).optional(),
  /** Why it is set aside and not chased */
  asideReason: text({ name: "The reason", label: "Not related: why", example: "leave empty to chase it" }).optional(),
  /** The code's own criteria: what the ECU tests and calls a fail, and the leak it names */
  criteria: group({
    leak: quantity("hole", { label: "Leak its criteria name", units: ["mm", "in", "thou"], example: "0.5" }).optional(),
    text: text({
      name: "The criteria",
      label: "What the ECU tests, when, and what it calls a fail",
      example: "cold start, 15 to 85 % fuel, vacuum lost within 10 s",
      max: 500,
    }).optional(),
  }).optional(),
  /** Control unit it was read in */
  module: text({ name: "The module", max: 60 }).optional().taken("Module"),
  /** The operating point that the freeze frame holds: where to test, and where to prove */
  frame: frame.optional().taken("Operating point"),
});
export type CodeRead = RecordOf<typeof codeReadFields>;

const A_NUMBER = "(-?\\d+(?:[.,]\\d+)?)";
const TYPED = {
  rpm: [new RegExp(`${A_NUMBER}\\s*(?:rpm|1?/min|min-1)`, "i")],
  load: [new RegExp(`load\\D{0,12}${A_NUMBER}\\s*%`, "i"), new RegExp(`${A_NUMBER}\\s*%\\s*(?:calculated |engine )?load`, "i")],
  celsius: [new RegExp(`(?:coolant|ECT)\\D{0,12}${A_NUMBER}\\s*°?C\\b`, "i"), new RegExp(`${A_NUMBER}\\s*°\\s*C\\b`, "i")],
} as const;

/** The operating point that a code was set at, as far as its freeze frame says it, taken or typed: 1/min, share of full load, K. */
export function setAt({ frame, freezeFrame = "" }: Pick<CodeRead, "frame" | "freezeFrame">): CodeSetAt {
  const typed = (what: keyof typeof TYPED) => {
    const found = TYPED[what].map((form) => form.exec(freezeFrame)?.[1]).find((n) => n !== undefined);
    return found === undefined ? undefined : Number(found.replace(",", "."));
  };
  const rpm = frame?.rpm ?? typed("rpm");
  const load = frame?.load ?? typed("load");
  const celsius = typed("celsius");
  const coolant = frame?.coolant ? toSi(frame.coolant) : celsius === undefined ? undefined : celsius + ZERO_CELSIUS;
  return {
    ...(rpm === undefined ? {} : { rpm }),
    ...(load === undefined ? {} : { load: load / 100 }),
    ...(coolant === undefined ? {} : { coolant }),
  };
}

/** A code read with a scan tool, typed in. */
export const codeReadForm = formOf<undefined>()(codeReadFields, {
  only: ["code", "freezeFrame", "status"],
  ask: { status: { defaultValue: () => "current" } },
  computed: { code: ({ code }) => code?.toUpperCase() },
});

/** Every code of every module; unrelated ones set aside with a reason, and what a code's own criteria say. */
const codesFields = fields({
  codes: list(codeReadFields.group, { label: "Codes", blank: {}, max: 100 }),
  /** The control units that were read, where somebody wrote them down */
  modules: list(text({ name: "The module", missing: "Name the module", max: 60 }), { max: 60 }).optional(),
});

interface CodesFacts {
  /** As they were read last */
  readonly codes: readonly CodeRead[];
}
const codeIn = ({ value }: FormState<unknown, "code">) => String(value("code"));

export const codesForm = recalling(
  formOf<CodesFacts>()(codesFields, {
    ask: {
      codes: {
        rows: {
          freezeFrame: { label: "Freeze frame" },
          asideReason: { label: (state) => `${codeIn(state)} not related: why` },
          "criteria.leak": { label: (state) => `${codeIn(state)}: leak its criteria name` },
          "criteria.text": { label: (state) => `${codeIn(state)}: what the ECU tests, when, and what it calls a fail` },
        },
      },
    },
  }),
  ({ codes }) => ({ codes }),
);

/** Codes as they stand in the form, with one more; read again, a code keeps what was said about it. */
export function withCode(rows: readonly Draft[], read: CodeRead): Draft[] {
  const before = rows.find((row) => row.code === read.code);
  return [...rows.filter((row) => row !== before), { ...before, ...read }];
}

export const codes = entryKind(codesFields, {
  words: (b) => (b.codes.length === 0 ? "Codes read: none" : `Codes read: ${b.codes.map((c) => c.code).join(", ")}`),
});
