import type { FittedSystem, VehicleFacts } from "../facts";
import type { HoseEnd, JointIn, JointRest } from "../joint";
import { hasThrottle } from "../usual";

/** Whether a zone or joint is on a vehicle. */
export type When = (facts: VehicleFacts) => boolean;
export const always: When = () => true;
export const turbo: When = (f) => f.induction === "turbo";
export const natural: When = (f) => f.induction === "natural";
export const metered: When = (f) => f.metering === "maf";
export const speedDensity: When = (f) => f.metering === "map";
export const twoBanks: When = (f) => f.banks === 2;
export const oneBank: When = (f) => f.banks === 1;
export const fitted =
  (system: FittedSystem): When =>
  (f) =>
    f.fitted.includes(system);

export const both =
  (...all: readonly When[]): When =>
  (f) =>
    all.every((when) => when(f));
export const either =
  (...some: readonly When[]): When =>
  (f) =>
    some.some((when) => when(f));
export const not =
  (when: When): When =>
  (f) =>
    !when(f);
export const diesel: When = (f) => f.fuel === "diesel";
export const petrol: When = not(diesel);
export const throttled: When = hasThrottle;

export const litre = 1e-3;

/** A zone with the vehicles it is on and its typical gas volume, m³. */
export const zone = <const Id extends string>(
  when: When,
  id: Id,
  name: string,
  volume: number | ((facts: VehicleFacts) => number),
) => ({ when, id, name, volume });

/** A joint with the vehicles it is on. */
export interface JointRow<Zone extends string> {
  readonly when: When;
  readonly joint: JointIn<Zone>;
}

type More<Zone extends string> = Partial<Omit<JointIn<Zone>, "id" | "name" | "from" | "to" | "kind" | "rest">>;

/** A place that can only leak. */
export const seal = <const Zone extends string, const Feeds extends string = Zone>(
  when: When,
  id: string,
  name: string,
  from: Zone,
  more: More<Feeds> = {},
): JointRow<Zone | Feeds> => ({
  when,
  joint: { id, name, from, to: "outside", kind: "seal", rest: "closed", ...more },
});

/** A joint between two zones, or from one to the outside. */
export const tie = <const From extends string, const To extends string>(
  when: When,
  id: string,
  name: string,
  from: From,
  to: To,
  kind: JointIn<From>["kind"],
  rest: JointRest = "open",
  more: More<never> = {},
): JointRow<From | Exclude<To, "outside">> => ({
  when,
  joint: { id, name, from, to: to as Exclude<To, "outside"> | "outside", kind, rest, ...more },
});

/** A hose to a branch of the manifold, of which the end there comes off: it can leak, and it can be pinched. */
export const hose = <const Feeds extends string = "manifold">(
  when: When,
  id: string,
  name: string,
  end: HoseEnd,
  feeds?: Feeds,
): JointRow<"manifold" | Feeds> =>
  seal<"manifold", Feeds>(when, id, name, "manifold", { pinchable: true, end, ...(feeds ? { feeds } : {}) });

/** Parts that come off at a hose's end, and how long getting in there, setting up and reading takes, minutes. */
export const off = (removes: string, minutes: number, more: Partial<HoseEnd> = {}): HoseEnd => ({ removes, minutes, ...more });
/** The same where the trade goes in first. */
export const usual = (removes: string, minutes: number, more: Partial<HoseEnd> = {}): HoseEnd =>
  off(removes, minutes, { usual: true, ...more });
