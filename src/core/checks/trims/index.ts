import { type CheckKind, readingOf } from "../contract";
import { trimsCandidates } from "./candidates";
import { mixtureCodes, trimsClaims } from "./claims";
import { type TrimSurvey, trimsFields, trimsForm } from "./fields";
import { judgeTrims, refusal } from "./judge";
import { trimOperatingPoints } from "./operating-points";
import { planTrims } from "./plan";
import { rows, type Seen } from "./rows";

export * from "./cluster";
export * from "./fields";
export * from "./judge";
export * from "./points";
export * from "./read";
export * from "./shapes";

export const trims: CheckKind<TrimSurvey, unknown, Seen> = {
  id: "trims",
  name: "Fuel-trim survey",
  words: { pass: "Works", fail: "Faulty" },
  aim: "What closed loop had to correct, from idle to load",
  engine: "warm-running",
  tool: "scan-tool",
  unfit: ({ vehicle }) => refusal(vehicle),
  needs: ["induction", "metering", "banks"],
  role: "measures",
  onlyReads: true,
  shelf: "running",
  rows,
  candidates: trimsCandidates,
  claims: trimsClaims,
  codes: mixtureCodes,
  irrelevant: {
    intakeTemperature: "it goes into the size of a hole alone",
  },
  fields: trimsFields,
  form: trimsForm,
  plan: planTrims,
  judge: judgeTrims,
  points: trimOperatingPoints,
  readings: ({ points }) =>
    points.flatMap((p, point) => {
      const at = { point, ...(p.window ? { seconds: p.window.from } : {}) };
      return [
        { reading: "engine speed", value: p.rpm, unit: "rpm", ...at },
        ...readingOf("MAF flow", p.maf, at),
        ...readingOf("manifold pressure", p.map && { ...p.map, kind: "absolute" }, at),
        ...p.banks.flatMap((b, i) => [
          ...(b.short === undefined ? [] : [{ reading: `short-term trim, bank ${i + 1}`, value: b.short, unit: "%", ...at }]),
          ...(b.total === undefined ? [] : [{ reading: `total trim, bank ${i + 1}`, value: b.total, unit: "%", ...at }]),
          ...(b.long === undefined ? [] : [{ reading: `long-term trim, bank ${i + 1}`, value: b.long, unit: "%", ...at }]),
        ]),
      ];
    }),
};
