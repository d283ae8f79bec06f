import { CHECKS, type CheckContext, judgeCheck, type Verdict } from "@/core/checks";
import { type Cause, codeObservations, type Family } from "@/core/faults";
import { validate } from "@/core/input";
import { type Noise, seededNoise } from "@/core/maths/random";
import type { Car } from "@/core/practice/car";
import { arrivalCodes, caseOf, type PracticeCase } from "@/core/practice/case";
import { READERS } from "@/core/practice/readers";
import type { Bay } from "@/core/practice/readers/bay";
import { type EngineNow, type Evidence, familiesOf, type PossibleCheck } from "@/core/suspects";

/** A practice car with what is hidden in it, and all that its checks will read. */
export interface HiddenCar {
  readonly context: CheckContext;
  readonly faults: readonly Cause[];
  /** Families that its codes point at */
  readonly families: readonly Family[];
  readonly story: readonly Evidence[];
  /** Driven in just now, or stood overnight */
  readonly arrives: EngineNow;
  /** Carries a check out on this car; the same check twice reads anew */
  read(candidate: PossibleCheck): Verdict;
}

/** One check in twelve is spoilt, whatever it was. */
const SPOILT = 1 / 12;
/** One case in five has two faults; the others mislead a little. */
const TWO = 0.2;

/** A case's story on a car, read by the practice bay's own instruments and judged from the records that they make. */
export function hiddenCar(
  given: PracticeCase,
  car: Car,
  noise: Noise,
  instruments: NonNullable<Bay["instruments"]> = {},
): HiddenCar {
  const { context, faults } = car;
  const observations = [
    ...codeObservations(
      arrivalCodes(given)
        .filter((c) => c.status !== "history")
        .map((c) => c.code),
      context.vehicle.banks,
    ),
    ...given.story.symptoms.map((s) => `symptom:${s}`),
  ];
  return {
    context,
    faults: faults.map((f) => f.cause),
    families: familiesOf(observations, []),
    arrives: given.arrives,
    story: observations.map((observation) => ({ observation, entry: "story" })),
    read(candidate) {
      if (noise.uniform() < SPOILT && candidate.check !== "look")
        return { outcome: "void", headline: "Spoilt", measures: [], reasons: [], zones: [] };
      const read = READERS[candidate.check];
      if (!read) throw new RangeError(`Nobody reads a ${candidate.check} in the practice bay`);
      const { check, place, tested } = candidate;
      const record = read({ car, noise, instruments }, { joint: place, entry: place, spots: tested });
      return judgeCheck(check, validate<object>(CHECKS[check].fields.schema, record), context);
    },
  };
}

/** A case of a family as it is played. */
export function practiceCar(family: Family, seed: number): HiddenCar {
  const noise = seededNoise(seed);
  const level = noise.uniform() < TWO ? 3 : 2;
  const given = caseOf({ family, level, seed: seed % 2 ** 20 });
  return hiddenCar(given, given.car, noise);
}
