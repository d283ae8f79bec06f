import { mixtureBanks } from "../../faults";
import { formatNumber } from "../../units";
import { atomOf, type Claim, ofEngine, POINT_CLASSES, type Says, trimAtom, type Window } from "../claim";
import type { CheckContext } from "../context";
import type { CodeSet, CodeSetAt } from "../contract";
import type { Verdict } from "../verdict";
import type { TrimSurvey } from "./fields";
import { countedPoints, pointSays, refusal } from "./judge";
import { classesOf, loadAt } from "./points";
import { stopsOf } from "./read";

const WORDS = { idle: "at idle", "1500": "at 1500 rpm", "2500": "at 2500 rpm", load: "under load" } as const;

/** Obligation from a mixture code: its bank's live correction in band at idle, where trims say anything. */
export const mixtureCodes = {
  claims: (codes: readonly CodeSet[], context: CheckContext): Claim[] => {
    const { layout, vehicle } = context;
    if (refusal(vehicle) !== undefined) return [];
    const whose = (bank: number) => (vehicle.banks > 1 ? ` of bank ${bank}` : "");
    const banksOf = ({ code }: CodeSet) => mixtureBanks(code, vehicle.banks);
    const idle = [...new Set(codes.flatMap(banksOf))].map((bank) =>
      ofEngine(layout, trimAtom(bank, "idle"), `trim at idle${whose(bank)}`, "open"),
    );
    const asSet = codes.flatMap((set) => {
      const under = similarTo(set.at, context);
      if (under.length === 0) return [];
      const where = `${under.map((w) => w.words).join(", ")} (${set.code}'s freeze frame)`;
      return banksOf(set).map(
        (bank): Claim => ({
          ...ofEngine(layout, atomOf("trim", `bank${bank}`, set.code), `trim${whose(bank)} ${where}`, "open"),
          metBy: POINT_CLASSES.map((point) => [trimAtom(bank, point)]),
          under: under.map((w) => ({ ...w, words: "there" })),
        }),
      );
    });
    return [...idle, ...asSet];
  },
  missing: (words: string) => `Survey the fuel trims: ${words} not read since the repair`,
};

/** How far from its freeze frame an operating point is similar: engine speed, 1/min, and share of full load (13 CCR 1968.2, similar conditions). */
const SIMILAR = { rpm: 375, load: 0.2 } as const;
/** How well `loadAt` tells a survey's load: what may lie within is within. */
const TOLD = 0.1;

/** Conditions similar to those that a code was set under; none where its frame says none, or was taken cold: no survey is. */
export function similarTo({ rpm, load, coolant }: CodeSetAt, { limits }: Pick<CheckContext, "limits">): Window[] {
  if (coolant !== undefined && coolant < limits.warmCoolant.value) return [];
  const percent = (share: number) => formatNumber(100 * Math.min(1, Math.max(0, share)), 0);
  return [
    ...(rpm === undefined
      ? []
      : [
          {
            of: "rpm",
            from: rpm - SIMILAR.rpm,
            to: rpm + SIMILAR.rpm,
            words: `between ${formatNumber(Math.max(0, rpm - SIMILAR.rpm), 0)} and ${formatNumber(rpm + SIMILAR.rpm, 0)} rpm`,
          },
        ]),
    ...(load === undefined
      ? []
      : [
          {
            of: "load",
            from: load - SIMILAR.load - TOLD,
            to: load + SIMILAR.load + TOLD,
            words: `at ${percent(load - SIMILAR.load)} to ${percent(load + SIMILAR.load)} % load`,
          },
        ]),
  ];
}

/** One question a bank and operating point: whether its correction stays in the shop's bands. */
export function trimsClaims(survey: TrimSurvey, verdict: Verdict, context: CheckContext): Claim[] {
  if (verdict.outcome === "void") return [];
  const counted = countedPoints(survey, context);
  const classes = classesOf({ ...survey, points: counted }, context);
  const stops = stopsOf(survey);
  const banks = counted[0]?.banks.length ?? 0;
  return Array.from({ length: banks }, (_, bank) =>
    POINT_CLASSES.flatMap((point): Claim[] => {
      const there = counted.filter((_, i) => classes[i] === point);
      const said = there.map((p) => pointSays(p, bank, stops, context));
      if (said.length === 0) return [];
      const says: Says = said.includes("bad") ? "bad" : said.includes("open") ? "open" : "good";
      const whose = banks > 1 ? ` of bank ${bank + 1}` : "";
      const claim = ofEngine(context.layout, trimAtom(bank + 1, point), `trim ${WORDS[point]}${whose}`, says);
      const at = there.flatMap((p, i) => (said[i] === "good" ? [{ rpm: p.rpm, load: loadAt(p, survey, context) }] : []));
      return [{ ...claim, at }];
    }),
  ).flat();
}
