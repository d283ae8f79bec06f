import type { FittedSystem, OpenFact, VehicleFacts, VehicleRecord, WorkedBy } from "./facts";

/** Equipment that the commonest car of a fuel and a year has. */
export function commonest({ fuel, year }: Pick<VehicleRecord, "fuel" | "year">): Pick<VehicleFacts, OpenFact> {
  const { induction, fitted } = fuel === "diesel" ? commonestDiesel(year) : { induction: "natural" as const, fitted: PETROL };
  return { induction, metering: "maf", banks: 1, fitted };
}
const PETROL: readonly FittedSystem[] = ["booster", "pcv", "evap"];
/** From about these years on a light diesel has a cooled way back of its exhaust, and a filter. */
const COOLED = 2004;
const FILTERED = 2009;
const commonestDiesel = (year = FILTERED) => ({
  induction: "turbo" as const,
  fitted: [
    "booster",
    "pcv",
    "egr",
    ...(year >= COOLED ? ["egr-cooler"] : []),
    ...(year >= FILTERED ? ["particulate-filter"] : []),
  ] as FittedSystem[],
});

/** From about this year on motors move what vacuum or boost moved before. */
const MOTORS = 2012;
const isOld = ({ year }: Pick<VehicleFacts, "year">) => year === undefined || year < MOTORS;

/** Drive of the vanes or the wastegate of a turbocharger; as usual where nobody said. */
export const boostWorkedBy = (facts: Pick<VehicleFacts, "boostWorked" | "fuel" | "year">): WorkedBy =>
  facts.boostWorked ?? (!isOld(facts) ? "electric" : facts.fuel === "diesel" ? "vacuum" : "pressure");

/** Drive of the valve of exhaust led back: a motor, where nobody said otherwise. */
export const egrWorkedBy = (facts: Pick<VehicleFacts, "egrWorked">): WorkedBy => facts.egrWorked ?? "electric";

/** Drive of a secondary-air switching valve; as usual where nobody said. */
export const airValveWorkedBy = (facts: Pick<VehicleFacts, "airValveWorked" | "year">): WorkedBy =>
  facts.airValveWorked ?? (isOld(facts) ? "vacuum" : "electric");

/** Whether a flap stands in its intake: a petrol engine's throttle, or a diesel's where it has one. */
export const hasThrottle = ({ fuel, throttleFlap, fitted }: Pick<VehicleFacts, "fuel" | "throttleFlap" | "fitted">): boolean =>
  fuel === "petrol" || (throttleFlap ?? fitted.includes("particulate-filter"));

/** Ethanol from this share on burns as the blend that carries its name, %. */
const BLEND = 50;

/** Its main fuel, as an exhaust's composition goes by it. */
export const burntFuel = ({
  fuel,
  gas,
  ethanol,
}: Pick<VehicleFacts, "fuel" | "gas" | "ethanol">): "petrol" | "diesel" | "e85" | "lpg" | "cng" =>
  fuel === "diesel" ? "diesel" : (gas ?? ((ethanol ?? 0) >= BLEND ? "e85" : "petrol"));
