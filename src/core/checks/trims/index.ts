import type { CheckKind } from "../check";
import { judgeTrims } from "./judge";
import { planTrims } from "./plan";
import { type TrimSurvey, trimSurveySchema } from "./record";

export * from "./judge";
export * from "./record";
export * from "./shapes";

export const trims: CheckKind<TrimSurvey> = {
  id: "trims",
  name: "Fuel-trim survey",
  words: { pass: "Works", fail: "Faulty" },
  schema: trimSurveySchema,
  plan: planTrims,
  judge: judgeTrims,
};
