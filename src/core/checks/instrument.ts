import type { Limits } from "../shop/limits";
import { formatNumber, formatQuantity, toSi } from "../units";
import type { InstrumentUse } from "./fields";

const isOffZero = ({ zero, division }: InstrumentUse) => Math.abs(toSi(zero)) > Math.abs(toSi(division)) * (1 + 1e-9);

/** Wording of a gauge that does not stand at zero while it is typed: before it is read, it can still be set. */
export function offZero(instrument: InstrumentUse): string | undefined {
  return isOffZero(instrument)
    ? `It shows ${formatQuantity(instrument.zero)} with nothing on it, more than one division: set it to zero, or its reading will not count`
    : undefined;
}

/**
 * Why an instrument cannot carry a verdict: not at zero within one division, or its division coarser than the shop's
 * share of the limit it is held against. Undefined when it can.
 * @param limit SI, the limit, the width of the band, or the change that the limit allows over the time watched;
 * @param longer what to do about a coarse one, where watching longer helps.
 */
export function instrumentDoubt(instrument: InstrumentUse, limit: number, limits: Limits, longer?: string): string | undefined {
  const division = Math.abs(toSi(instrument.division));
  if (isOffZero(instrument)) {
    return `${instrument.name} showed ${formatQuantity(instrument.zero)} with nothing on it, more than one division: zero it and read again`;
  }
  const share = limits.instrumentShare.value;
  if (division > share * Math.abs(limit) * (1 + 1e-9)) {
    return `${instrument.name} is too coarse: one division of ${formatQuantity(instrument.division)} is more than ${formatNumber(share * 100, 0)} % of the limit. ${longer ?? "Take a finer one"}`;
  }
  return undefined;
}

/**
 * The change that a share lost in `per` seconds allows over the time watched, and how long a gauge of this division must be
 * watched to carry a verdict: a loss that falls with what drives it leaves start·(1 − (1 − limit)^(t/per)).
 * @param start in the same unit as the result.
 */
function allowedLoss(start: number, limit: number, seconds: number, per = 60): number {
  return start * (1 - (1 - limit) ** (seconds / per));
}

/** s that an instrument must be watched so that its division is fine enough for the loss; Infinity where none helps. */
function watchTime(instrument: InstrumentUse, start: number, limit: number, limits: Limits, per = 60): number {
  const needed = Math.abs(toSi(instrument.division)) / limits.instrumentShare.value / Math.abs(start);
  return needed < 1 ? (per * Math.log(1 - needed)) / Math.log(1 - limit) : Number.POSITIVE_INFINITY;
}

/**
 * Why an instrument cannot carry a loss, and for how long to watch where that helps.
 * @param held the start in SI, the share that may be lost in `per` seconds, and the seconds watched.
 */
export function lossDoubt(
  instrument: InstrumentUse,
  held: { readonly start: number; readonly limit: number; readonly seconds: number; readonly per?: number },
  limits: Limits,
): string | undefined {
  const { start, limit, seconds, per = 60 } = held;
  const watch = watchTime(instrument, start, limit, limits, per);
  return instrumentDoubt(
    instrument,
    allowedLoss(start, limit, seconds, per),
    limits,
    Number.isFinite(watch) ? `Watch it for ${formatNumber(Math.ceil(watch / 10) * 10, 0)} s, or take a finer one` : undefined,
  );
}

/** Why readings that may only fall cannot be: one rises by more than the gauge can tell. */
export function rises(samples: readonly (readonly [number, number])[], division: number): string | undefined {
  const at = samples.findIndex((s, i) => i > 0 && s[1] > (samples[i - 1] as readonly [number, number])[1] + 1.01 * division);
  return at < 0
    ? undefined
    : `the reading rose at ${formatNumber((samples[at] as readonly [number, number])[0], 0)} s, where it can only fall: it was pumped up in between, or the gauge stuck`;
}
