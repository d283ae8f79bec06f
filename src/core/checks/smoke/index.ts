import type { CheckKind } from "../check";
import { judgeSmoke } from "./judge";
import { planSmoke, type SmokeAim } from "./plan";
import { type SmokeRun, smokeRunSchema } from "./record";

export * from "./judge";
export * from "./plan";
export * from "./record";

export const smoke: CheckKind<SmokeRun, SmokeAim> = {
  id: "smoke",
  name: "Smoke run",
  words: { pass: "Tight", fail: "Leaking" },
  schema: smokeRunSchema,
  plan: planSmoke,
  judge: judgeSmoke,
};
