import { mixtureBanks } from "../../faults";
import { type Claim, ofEngine, POINT_CLASSES, type Says, trimAtom } from "../claim";
import type { CheckContext } from "../context";
import type { Verdict } from "../verdict";
import type { TrimSurvey } from "./fields";
import { countedPoints, pointSays, refusal } from "./judge";
import { classesOf } from "./points";
import { stopsOf } from "./read";

const WORDS = { idle: "at idle", "1500": "at 1500 1/min", "2500": "at 2500 1/min", load: "under load" } as const;

/** What a mixture code asks for: its bank's live correction in band at idle, where trims say anything. */
export const mixtureCodes = {
  claims: (codes: readonly string[], { layout, vehicle }: CheckContext): Claim[] =>
    refusal(vehicle) === undefined
      ? [...new Set(codes.flatMap((code) => mixtureBanks(code, vehicle.banks)))].map((bank) =>
          ofEngine(layout, trimAtom(bank, "idle"), `trim at idle${vehicle.banks > 1 ? ` of bank ${bank}` : ""}`, "open"),
        )
      : [],
  missing: (words: string) => `Live data since the repair is missing: ${words}. Take a fuel-trim survey`,
};

/** One question a bank and operating point: whether its correction stays in the shop's bands. */
export function trimsClaims(survey: TrimSurvey, verdict: Verdict, context: CheckContext): Claim[] {
  if (verdict.outcome === "void") return [];
  const counted = countedPoints(survey, context);
  const classes = classesOf({ ...survey, points: counted }, context);
  const stops = stopsOf(survey);
  const banks = counted[0]?.banks.length ?? 0;
  return Array.from({ length: banks }, (_, bank) =>
    POINT_CLASSES.flatMap((point): Claim[] => {
      const said = counted.flatMap((p, i) => (classes[i] === point ? [pointSays(p, bank, stops, context)] : []));
      if (said.length === 0) return [];
      const says: Says = said.includes("bad") ? "bad" : said.includes("open") ? "open" : "good";
      const whose = banks > 1 ? ` of bank ${bank + 1}` : "";
      return [ofEngine(context.layout, trimAtom(bank + 1, point), `trim ${WORDS[point]}${whose}`, says)];
    }),
  ).flat();
}
