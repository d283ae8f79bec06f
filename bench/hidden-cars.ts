import { CHECKS, type CheckContext, judgeCheck, type Verdict, voidVerdict } from "@/core/checks";
import type { InstrumentUse } from "@/core/checks/fields";
import { type Cause, codeObservations, type Family } from "@/core/faults";
import { BadInput, validate } from "@/core/input";
import type { Noise } from "@/core/maths/random";
import type { Car } from "@/core/practice/car";
import { arrivalCodes, type PracticeCase } from "@/core/practice/case";
import { readCheck } from "@/core/practice/readers";
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
/** A car's gauges read high or low by so much, share, and stand off zero by one division in so many. */
const GAIN = 0.01;
const OFF_ZERO = 1 / 4;

/** A case's story on a car, read by the practice bay's own instruments and judged from the records that they make. */
export function hiddenCar(
  given: PracticeCase,
  car: Car,
  noise: Noise,
  instruments: NonNullable<Bay["instruments"]> = {},
): HiddenCar {
  const { context, faults } = car;
  const off = noise.uniform();
  const gauge = { gain: 1 + noise.normal(GAIN), off: off < OFF_ZERO ? 1 : off < 2 * OFF_ZERO ? -1 : 0 };
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
      if (noise.uniform() < SPOILT && candidate.check !== "look") return voidVerdict("Spoilt", "something went wrong with it");
      const { check, place, tested } = candidate;
      const record = readCheck(check, { car, noise, instruments }, { joint: place, entry: place, spots: tested });
      if (!record) throw new RangeError(`Nobody reads a ${check} in the practice bay`);
      try {
        return judgeCheck(check, validate<object>(CHECKS[check].fields.schema, onGauge(record, gauge)), context);
      } catch (error) {
        // The door refuses what no car reads: it cost its minutes and says nothing.
        if (error instanceof BadInput) return voidVerdict("Refused", "the door takes no such reading");
        throw error;
      }
    },
  };
}

/** What a gauge that is a little off shows of all that was read on it, in its own divisions. */
function onGauge(record: object, { gain, off }: { readonly gain: number; readonly off: number }): object {
  const { instrument } = record as { readonly instrument?: InstrumentUse };
  if (!instrument) return record;
  const { value: step, unit } = instrument.division;
  const shown = (it: unknown): unknown => {
    if (Array.isArray(it)) return it.map(shown);
    if (typeof it !== "object" || it === null) return it;
    const { value, unit: own } = it as { readonly value?: unknown; readonly unit?: unknown };
    if (typeof value === "number" && own === unit)
      return { ...it, value: value === 0 ? 0 : Number((Math.round((value * gain) / step + off) * step).toPrecision(6)) };
    return Object.fromEntries(Object.entries(it).map(([key, inner]) => [key, key === "instrument" ? inner : shown(inner)]));
  };
  return shown(record) as object;
}
