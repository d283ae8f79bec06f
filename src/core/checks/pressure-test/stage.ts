import type { Limits } from "../../shop/limits";
import { type Quantity, toSi } from "../../units";
import type { PressureTest } from "./record";

/** How high a test may go, Pa gauge, and what says so. */
export interface TestStage {
  readonly pressure: number;
  /** The lowest of them, as it is named in a sentence */
  readonly binds: string;
}

/**
 * The test stage of a boost pressure test: the lowest of the engine's maximum boost, the ratings of all that stands under
 * pressure, and the shop's ceiling. What is not known does not bind.
 */
export function testStage(
  { maxBoost, ratings }: Pick<Partial<PressureTest>, "maxBoost"> & { readonly ratings?: Partial<PressureTest["ratings"]> },
  limits: Limits,
): TestStage {
  const of = (q: Quantity | undefined, binds: string): TestStage[] => (q ? [{ pressure: toSi(q), binds }] : []);
  const all = [
    ...of(maxBoost, "the engine's maximum boost"),
    ...of(ratings?.part, "the weakest part's rating"),
    ...of(ratings?.tool, "the rating of adapter and hose"),
    ...of(ratings?.bladder, "the bladder's rating"),
    { pressure: limits.boostCeiling.value, binds: `the shop's ceiling (${limits.boostCeiling.source})` },
  ];
  return all.reduce((lowest, stage) => (stage.pressure < lowest.pressure ? stage : lowest));
}
