import type { Limits } from "../shop/limits";
import { formatNumber, formatQuantity, toSi } from "../units";
import type { InstrumentUse } from "./fields";

/**
 * Why an instrument cannot carry a verdict: not at zero within one division, or its division coarser than the shop's
 * share of the limit it is held against. Undefined when it can.
 * @param limit SI, the limit (or the width of the band) the reading is held against.
 */
export function instrumentDoubt(instrument: InstrumentUse, limit: number, limits: Limits): string | undefined {
  const division = Math.abs(toSi(instrument.division));
  const zero = Math.abs(toSi(instrument.zero));
  if (zero > division * (1 + 1e-9)) {
    return `${instrument.name} showed ${formatQuantity(instrument.zero)} with nothing on it, more than one division: zero it and read again`;
  }
  const share = limits.instrumentShare.value;
  if (division > share * Math.abs(limit) * (1 + 1e-9)) {
    return `${instrument.name} is too coarse: one division of ${formatQuantity(instrument.division)} is more than ${formatNumber(share * 100, 0)} % of the limit. Take a finer one`;
  }
  return undefined;
}
