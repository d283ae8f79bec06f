import { formatNumber } from "../units";
import { type ExhaustGas, type GasFuel, lambdaWithin } from "./exhaust";

/** Beyond these an emission test refuses a warm petrol engine with a closed loop at raised idle (Directive 2014/45/EU, annex I). */
const RICHEST = 0.97;
const LEANEST = 1.03;
/** The ECU's own λ is known so well. */
const SENSOR = 0.02;
/** Both at once: some cylinder does not burn its charge, %. */
const UNBURNT_CO = 1;
const UNBURNT_O2 = 1.5;

export interface ReadExhaust extends ExhaustGas {
  readonly fuel: GasFuel;
  /** λ as the ECU has it before the catalyst */
  readonly ecuLambda?: number;
  readonly loop?: "closed" | "open";
}

/** Where excess air came in: with the mixture, into the exhaust, or by what was read it cannot be told. */
export type AirOrigin = "mixture" | "exhaust" | "cannot-tell";

export interface JudgedExhaust {
  readonly lambda: number;
  /** Air beyond what the fuel needs, as a share of that; negative where there is too little */
  readonly excessAir: number;
  readonly origin: AirOrigin;
  readonly outcome: "pass" | "fail" | "unsure";
  readonly reasons: readonly string[];
}

/**
 * Verdict from an exhaust's gases. They tell how much air there is beside the fuel; where it came in only something else tells:
 * the ECU's own λ in closed loop, taken at the same moment. Throws RangeError as `lambdaOf` does, and for a λ that no sensor shows.
 */
export function judgeExhaust({ fuel, ecuLambda, loop, ...gas }: ReadExhaust): JudgedExhaust {
  if (ecuLambda !== undefined && !(ecuLambda > 0.5 && ecuLambda < 3)) throw new RangeError("No sensor shows such a lambda");
  const { value, low, high } = lambdaWithin(gas, fuel);
  const says = [
    `λ ${formatNumber(value, 3)}, between ${formatNumber(low, 3)} and ${formatNumber(high, 3)} by what an analyser may be wrong by`,
  ];
  const base = { lambda: value, excessAir: value - 1 };
  if (gas.co >= UNBURNT_CO && gas.o2 >= UNBURNT_O2)
    return {
      ...base,
      origin: "cannot-tell",
      outcome: "fail",
      reasons: [
        ...says,
        "much carbon monoxide and much oxygen at once: a cylinder that does not burn, before any leak is looked for",
      ],
    };
  if (high < RICHEST)
    return {
      ...base,
      origin: "mixture",
      outcome: "fail",
      reasons: [...says, "too little air for its fuel: only the mixture can do that"],
    };
  if (low >= RICHEST && high <= LEANEST)
    return { ...base, origin: "cannot-tell", outcome: "pass", reasons: [...says, "no excess air, and none missing"] };
  if (low <= LEANEST)
    return {
      ...base,
      origin: "cannot-tell",
      outcome: "unsure",
      reasons: [
        ...says,
        `too near ${formatNumber(LEANEST, 2)} or ${formatNumber(RICHEST, 2)} for this analyser: warm it up, probe deep, read again`,
      ],
    };
  const { origin, why } = originOf(ecuLambda, loop, low);
  return { ...base, origin, outcome: "fail", reasons: [...says, why] };
}

function originOf(ecu: number | undefined, loop: ReadExhaust["loop"], low: number): { origin: AirOrigin; why: string } {
  if (ecu === undefined)
    return {
      origin: "cannot-tell",
      why: "a lean mixture and good exhaust thinned with air read alike: read the ECU's own λ before the catalyst, in closed loop",
    };
  if (loop !== "closed")
    return { origin: "cannot-tell", why: "out of closed loop the ECU's λ holds to nothing: warm it up and read both again" };
  if (ecu + SENSOR < low && Math.abs(ecu - 1) <= SENSOR)
    return {
      origin: "exhaust",
      why: "the ECU holds λ at one before the catalyst and the tail reads lean: air comes in behind that sensor. Plug the tail, smoke or soap the joints; probe deeper first",
    };
  if (ecu - SENSOR >= 1)
    return { origin: "mixture", why: "the ECU's own sensor reads lean too: the engine gets it with its mixture" };
  return { origin: "cannot-tell", why: "the ECU's λ and the tail's do not fit together: check the sensor and the probe" };
}
