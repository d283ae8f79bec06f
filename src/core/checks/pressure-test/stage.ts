import { type Quantity, toSi } from "../../units";
import type { VehicleFacts } from "../../vehicle";
import type { CheckContext } from "../context";
import type { PressureTest } from "./fields";

/** A gauge a little off is no test above its rating. */
const TOO_MUCH = 1.03;

/** Whether a pressure, Pa gauge, lies above what the test may have. */
export const isAbove = (pressure: number, { pressure: most }: Pick<TestStage, "pressure">): boolean => pressure > TOO_MUCH * most;

/** How high a test may go, Pa gauge, and what says so. */
export interface TestStage {
  readonly pressure: number;
  /** The lowest of them, as it is named in a sentence */
  readonly binds: string;
}

/**
 * The boost that a test has to cover: as the vehicle's facts have it, and as it was typed beside the test only where they say
 * nothing. A test cannot make the engine weaker than it is.
 */
export const boostOf = (
  { maxBoost }: Pick<Partial<PressureTest>, "maxBoost">,
  vehicle: Pick<VehicleFacts, "maxBoost">,
): Quantity | undefined => vehicle.maxBoost ?? maxBoost;

/**
 * The test stage of a boost pressure test: the lowest of the engine's maximum boost, the ratings of all that stands under
 * pressure, and the shop's ceiling. What is not known does not bind.
 */
export function testStage(
  test: Pick<Partial<PressureTest>, "maxBoost"> & { readonly ratings?: Partial<PressureTest["ratings"]> },
  { limits, vehicle }: Pick<CheckContext, "limits" | "vehicle">,
): TestStage {
  const { ratings } = test;
  const of = (q: Quantity | undefined, binds: string): TestStage[] => (q ? [{ pressure: toSi(q), binds }] : []);
  const all = [
    ...of(boostOf(test, vehicle), "the engine's maximum boost"),
    ...of(ratings?.part, "the weakest part's rating"),
    ...of(ratings?.tool, "the rating of adapter and hose"),
    ...of(ratings?.bladder, "the bladder's rating"),
    { pressure: limits.boostCeiling.value, binds: `the shop's ceiling (${limits.boostCeiling.source})` },
  ];
  return all.reduce((lowest, stage) => (stage.pressure < lowest.pressure ? stage : lowest));
}
