import { now } from "./clock";
import { TooSoon } from "./refusals";

/** Rest that one side may still send beyond the usual, and when that was reckoned, ms. */
interface Left {
  entries: number;
  at: number;
}
const shared = globalThis as { pelotaAllowances?: Map<string, Left> };
const allowances = () => {
  shared.pelotaAllowances ??= new Map();
  return shared.pelotaAllowances;
};

/** A request of so many entries holds nobody up, and a device's own are never more. */
const USUAL = 20;
/** The most that is taken in one request. */
const MOST = 500;
/** Beyond the usual: so many at once, and so many more with each second. */
const AT_ONCE = 2000;
const A_SECOND = 50;
/** Sides that are remembered, the longest quiet go first. */
const KEPT = 1000;

/**
 * Lets one side's entries in as fast as nobody else is held up by them. What is over waits and is sent again: it is never refused
 * for good. @param side the device that sends. Throws TooSoon.
 */
export function allow(side: string, entries: number): void {
  const again = (wait: number) =>
    new TooSoon(`So many entries at once would hold the others up: they are kept, try again in ${wait} s`, wait);
  if (entries > MOST) throw again(60);
  const over = entries - USUAL;
  if (over <= 0) return;
  const known = allowances().get(side) ?? { entries: AT_ONCE, at: now() };
  const since = Math.max(0, now() - known.at) / 1000;
  const left = Math.min(AT_ONCE, known.entries + since * A_SECOND);
  if (over > left) throw again(Math.ceil((over - left) / A_SECOND));
  allowances().delete(side);
  allowances().set(side, { entries: left - over, at: now() });
  if (allowances().size > KEPT) allowances().delete(allowances().keys().next().value as string);
}
