import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { CHECK_IDS, CHECKS } from "../checks";
import { COLD_AIR, contextOf, DIESEL, NATURAL, TURBO, TWO_BANKS, VAPOUR } from "../core.fixture";
import { causesOf, FAMILY_IDS } from "../faults";
import { FITTED_SYSTEMS, type VehicleFacts } from "../vehicle";
import { LIKELIHOOD_ROWS, likelihood } from "./likelihoods";
import { candidatesOf } from "./next";
import { rows as tried } from "./tried";

const everything: VehicleFacts = { ...VAPOUR, fitted: FITTED_SYSTEMS };
const band = {
  low: { value: -4, unit: "kPa", kind: "gauge" },
  high: { value: -1, unit: "kPa", kind: "gauge" },
} as NonNullable<VehicleFacts["crankcaseBand"]>;
const VEHICLES: readonly VehicleFacts[] = [
  NATURAL,
  TURBO,
  TWO_BANKS,
  VAPOUR,
  DIESEL,
  COLD_AIR,
  everything,
  { ...everything, crankcaseBand: band },
];
const possible = VEHICLES.flatMap((facts) => {
  const context = contextOf(facts);
  const causes = causesOf(context.layout, facts, FAMILY_IDS);
  return candidatesOf(context, FAMILY_IDS).map((candidate) => ({ candidate, causes }));
});
/** Wording beside a main observation, of several runs together, or as the weaker form of an outcome that is predicted. */
const BESIDE: readonly string[] = [
  "look-fine:*",
  "airflow-idle-low",
  "section-within",
  "valve-good-warm",
  "pulldown-none-plugged",
  "pulldown-good-plugged",
  "sensor-zero-right",
  // The one bank's form of the shape that is predicted
  "lean-fades-bank-1",
  "lean-fades-bank-2",
];
/** Sources that the judge of a kind and its helpers are written with, rows and predictions left out. */
const judgeText = (kind: string) => {
  const folder = new URL(`../checks/${kind}/`, import.meta.url);
  const files = readdirSync(folder).filter((f) => !/^(rows|candidates)\.ts$|\.test\.ts$/.test(f));
  return files.map((f) => readFileSync(new URL(f, folder), "utf8")).join("\n");
};

describe("what checks can say and what it is weighed by", () => {
  it("every kind of check can be proposed on some vehicle", () => {
    const proposed = new Set(possible.map((p) => p.candidate.check));
    // What weighs nothing by itself is taken when somebody wants it: a part on the bench, a cabin's seals.
    const weighing = CHECK_IDS.filter((id) => Object.keys(CHECKS[id].rows).length > 0);
    expect(weighing.filter((id) => !proposed.has(id))).toEqual([]);
    expect(CHECK_IDS.length - weighing.length).toBe(2);
  });

  it("every outcome of a candidate is weighed by a row, for every cause", () => {
    const unweighed = possible.flatMap(({ candidate, causes }) =>
      candidate.outcomes.filter((o) => causes.some((cause) => likelihood(o, cause, candidate.tested) === undefined)),
    );
    expect([...new Set(unweighed)]).toEqual([]);
  });

  it("every row of a check's observation is an outcome that some candidate predicts", () => {
    const predicted = new Set(
      possible.flatMap(({ candidate }) => candidate.outcomes.flatMap((o) => [o, `${o.split(":")[0]}:*`])),
    );
    const said = [...LIKELIHOOD_ROWS.keys()].filter((o) => !/^(code|symptom):/.test(o) && !(o in tried));
    expect(said.filter((o) => !predicted.has(o) && !BESIDE.includes(o))).toEqual([]);
  });

  // That a judge says nothing its rows do not weigh is the compiler's to see; the other way round it is this test's.
  it("every row of a kind is an observation that its judge can say", () => {
    const idle = CHECK_IDS.flatMap((kind) => {
      const text = judgeText(kind);
      const literal = (o: string) => (o.endsWith("*") ? new RegExp(`["\`]${o.slice(0, -1)}`) : new RegExp(`["\`]${o}["\`]`));
      return Object.keys(CHECKS[kind].rows).filter((o) => !literal(o).test(text));
    });
    expect(idle).toEqual([]);
  });
});
