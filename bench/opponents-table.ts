import { readFileSync, writeFileSync } from "node:fs";
import { CODE_FAMILIES } from "@/core/practice/code";
import { opponentsTrial, type Tenth } from "./opponents";
import { carOfShop, WORLDS, type World } from "./shops";

const PAGE = "docs/judgement.md";
const TITLE = "## Against charts, in shops of their own";
const percent = (share: number) => `${(100 * share).toFixed(0)} %`.replace("-", "−");
const COUNTS = 300;
/** A tenth may be off by so much, in the table's world and elsewhere, or by so many of its standard errors. */
const WITHIN: Readonly<Record<World, number>> = { table: 0.05, shops: 0.05, flat: 0.08 };
const ERRORS = 2.5;

/** Tenths of several families as one. */
function together(all: readonly (readonly Tenth[])[]): Tenth[] {
  return Array.from({ length: 10 }, (_, i) => {
    const parts = all.flatMap((tenths) => tenths[i] ?? []);
    const count = parts.reduce((sum, t) => sum + t.count, 0);
    const mean = (of: (t: Tenth) => number) => parts.reduce((sum, t) => sum + of(t) * t.count, 0) / Math.max(1, count);
    const error = Math.sqrt(parts.reduce((sum, t) => sum + (t.error * t.count) ** 2, 0)) / Math.max(1, count);
    return { said: mean((t) => t.said), right: mean((t) => t.right), count, error };
  });
}

/** Plays so many cars of each family in each world, and writes what came of it as the last part of docs/judgement.md. */
export function opponentsPart(cars: number, seed: number): void {
  const lines: string[] = [
    TITLE,
    "",
    `\`npm run bench -- opponents\` plays ${cars} cars of each family in each of three worlds: causes as often as the table has them, as shops have`,
    "them that keep to the table loosely (each its own, 20 cars a shop), and each alike. 15 % of the cars have nothing wrong with them though a code",
    "was stored, 20 % two faults; one bay in several has an instrument out of order, one check in twelve is spoilt. A hand that confirms misses",
    "5 % and wrongly confirms 2 %; a part is fitted only after a second confirmation, whose minutes are charged. A faulty car that is given up,",
    "handed back as sound or gets a wrong part costs 60 minutes more. The charts were written before anything was measured with them.",
    "",
  ];
  for (const world of WORLDS) {
    const trials = CODE_FAMILIES.map((family) => opponentsTrial(cars, seed, (s) => carOfShop(family, world, s)));
    lines.push(
      `### World: ${world}`,
      "",
      "| family | first within five | minutes | best chart | its minutes | time saved | found | sound handed back | parts fitted to them |",
      "| --- | --- | --- | --- | --- | --- | --- | --- | --- |",
    );
    for (const [i, family] of CODE_FAMILIES.entries()) {
      const [app, ...charts] = trials[i]?.players ?? [];
      const best = charts.toSorted((a, b) => a.minutes - b.minutes)[0];
      if (!app || !best) continue;
      lines.push(
        `| ${family} | ${percent(app.first)} | ${app.minutes.toFixed(0)} | ${best.name} | ${best.minutes.toFixed(0)} | ${percent(1 - app.minutes / best.minutes)} | ${percent(app.found)} | ${percent(app.handedBack)} | ${percent(app.fitted)} |`,
      );
    }
    const tenths = together(trials.map((t) => t.tenths)).filter((t) => t.count >= COUNTS);
    const off = tenths.filter((t) => Math.abs(t.said - t.right) > Math.max(WITHIN[world], ERRORS * t.error));
    lines.push(
      "",
      `Said and true, tenths with ${COUNTS} statements and more: ${tenths.map((t) => `${percent(t.said)}/${percent(t.right)} (${t.count})`).join(", ")}.`,
      off.length === 0
        ? `All lie within ${percent(WITHIN[world])} or ${ERRORS} standard errors, clustered by car.`
        : `Outside ${percent(WITHIN[world])} and ${ERRORS} standard errors, clustered by car: ${off.map((t) => `${percent(t.said)} said, ${percent(t.right)} true`).join("; ")}.`,
      "",
    );
    console.log(lines.slice(lines.indexOf(`### World: ${world}`)).join("\n"));
  }
  lines.push(
    "Asked for: first within five 95 %, 20 % less time than the best chart and in no family more, sound cars handed back 90 %, parts fitted to",
    "them at most 2 %. What is not met here is not met: the judge has not been changed for this opponent yet.",
    "",
  );
  const page = readFileSync(PAGE, "utf8");
  const at = page.indexOf(TITLE);
  writeFileSync(PAGE, `${(at < 0 ? page : page.slice(0, at)).trimEnd()}\n\n${lines.join("\n")}`);
}
