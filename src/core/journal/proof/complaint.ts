import type { Bodies } from "../entries";
import type { Evidence } from "./evidence";
import type { LineOf } from "./order";

/** Conditions that a complaint or a code comes under. */
export type ComesUnder = "load" | "cold";

const SYMPTOMS: Readonly<Partial<Record<string, ComesUnder>>> = {
  "hiss-load": "load",
  "low-power": "load",
  "black-smoke": "load",
  "cold-worse": "cold",
  "ticking-cold": "cold",
  "pump-howl": "cold",
};

/** Conditions that the story gives for its complaint. */
export const comesUnder = (story: Bodies["story"] | undefined): readonly ComesUnder[] => [
  ...new Set((story?.symptoms ?? []).flatMap((symptom) => SYMPTOMS[symptom] ?? [])),
];

/**
 * Those of them that were not met since the repair: a drive up hills under load, or boost logged as asked for; a start from cold.
 * @param drives and evidence since the last work alone.
 */
export function notMet(
  under: readonly ComesUnder[],
  drives: readonly LineOf<"drive">[],
  evidence: readonly Evidence[],
): readonly ComesUnder[] {
  const boosted = evidence.some((e) => e.claims.some((c) => c.says === "good" && c.at?.some((point) => (point.boost ?? 0) > 0)));
  return under.filter((one) => !metOn(one, drives) && !(one === "load" && boosted));
}

/** Whether one of these drives was what a fault comes under. */
export const metOn = (under: ComesUnder, drives: readonly LineOf<"drive">[]): boolean =>
  drives.some(({ body }) => (under === "load" ? body.load === "hills" : body.coldStart));
