import { type Draft, formOf, type Given, type Option, recalling } from "../form";
import { type Bodies, bodySchema, type CodeRead, type CodeStatus, codeReadSchema } from "./entries";

const CODE_STATUSES: Readonly<Record<CodeStatus, string>> = {
  current: "Current",
  pending: "Pending",
  stored: "Stored",
  permanent: "Permanent",
  history: "History",
};

/** A code read with a scan tool, typed in. */
export const codeReadForm = formOf<CodeRead, undefined>()({
  schema: codeReadSchema,
  fields: {
    code: { type: "text", label: "Code", example: "P0171" },
    freezeFrame: { type: "text", label: "Freeze frame (optional)", example: "720 rpm, 92 °C, load 24 %" },
    status: { type: "choice", label: "Status", options: Object.entries(CODE_STATUSES) as Option[], holds: () => "current" },
  },
  also: ({ code }) => (typeof code === "string" ? { code: code.toUpperCase() } : {}),
});

interface Known {
  /** As they were read last */
  readonly codes: readonly CodeRead[];
}

const codeIn = ({ holds }: Given<Known>) => String(holds("code"));

/** Every code of every module; unrelated ones set aside with a reason, and what a code's own criteria say. */
export const codesForm = formOf<Bodies["codes"], Known>()({
  schema: bodySchema("codes"),
  fields: recalling((known) => known, {
    codes: {
      type: "rows",
      label: "Codes",
      blank: {},
      fields: {
        code: { type: "text", label: "Code" },
        status: { type: "choice", label: "Status", options: Object.entries(CODE_STATUSES) as Option[] },
        freezeFrame: { type: "text", label: "Freeze frame" },
        asideReason: { type: "text", label: (given) => `Set ${codeIn(given)} aside because`, example: "chase it" },
        "criteria.leak": {
          type: "quantity",
          label: (given) => `${codeIn(given)}: leak its criteria name`,
          band: "hole",
          unit: "mm",
          units: ["mm", "in", "thou"],
          example: "0.5",
        },
        "criteria.text": {
          type: "text",
          label: (given) => `${codeIn(given)}: what the ECU tests, when, and what it calls a fail`,
          example: "cold start, 15 to 85 % fuel, vacuum lost within 10 s",
        },
        module: { type: "taken", label: "Module" },
        frame: { type: "taken", label: "Operating point" },
      },
    },
  }),
});

/** Codes as they stand in the form, with one more; read again, a code keeps what was said about it. */
export function withCode(rows: readonly Draft[], read: CodeRead): Draft[] {
  const before = rows.find((row) => row.code === read.code);
  return [...rows.filter((row) => row !== before), { ...before, ...read }];
}
