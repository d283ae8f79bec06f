import { engineTruth, hasTrait, stateAt } from "../../practice/car";
import type { OperatingState } from "../../practice/engine";
import { type Bay, faultsThere, placeOf, type Setup } from "../../practice/readers/bay";
import { held, mapOf, meterOf, rpmOf } from "../../practice/readers/running";
import type { EgrRecord } from "./fields";

/** Effective diameter of an EGR valve commanded open, m for each 1.6 L. */
const EGR_OPENS = 5.2e-3;

export const simulate = (bay: Bay, setup: Setup): EgrRecord => {
  const { car } = bay;
  const place = placeOf(setup);
  const dead = [
    ...faultsThere(bay, place, "egr-blocked", "circuit-dead"),
    ...car.faults.filter((f) => ["egr-pipe", "egr-diaphragm", "egr-solenoid"].includes(f.cause.joint ?? "")),
  ];
  const leaks = faultsThere(bay, place, "inside-leak")[0];
  const truth = engineTruth(car);
  const opened = EGR_OPENS * Math.sqrt(truth.displacement / 1.6e-3) * (truth.diesel ? 3.2 : 1);
  const backflow = dead.length > 0 ? (truth.backflow ?? 0) : Math.hypot(truth.backflow ?? 0, opened);
  const read = (state: OperatingState) => ({
    rpm: rpmOf(bay, state),
    ...(car.context.vehicle.metering === "maf" ? { maf: meterOf(bay, state) } : {}),
    map: mapOf(bay, state),
  });
  const cooler = hasTrait(car, "egr-cooler-leak");
  return {
    joint: place,
    shut: read(stateAt(car, held(1500))),
    open: read(stateAt(car, held(1500), { backflow })),
    seat: leaks ? "passes" : "holds",
    watched: "pipe",
    cooler: !car.context.vehicle.fitted.includes("egr-cooler") ? "none" : cooler ? "loses" : "holds",
    warm: true,
  };
};
