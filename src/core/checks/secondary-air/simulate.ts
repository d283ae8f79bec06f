import { hasTrait, stateAt } from "../../practice/car";
import { airArrives } from "../../practice/monitors";
import { type Bay, chosen, faultsThere, percent, placeOf, type Setup, showsTo } from "../../practice/readers/bay";
import { IDLE } from "../../practice/readers/running";
import type { SecondaryAirRecord } from "./fields";

/** Air that the pump makes, kg/s; what soap shows and what the oxygen sensor needs of it at idle. */
const PUMP = 4.5e-3;

const LEAN = 0.1;

export const simulate = (bay: Bay, setup: Setup): SecondaryAirRecord => {
  const { car, noise } = bay;
  const place = placeOf(setup);
  const dead = car.faults.some((f) => f.cause.trait === "air-pump-dead" || f.cause.id === "pump-circuit");
  const leak = hasTrait(car, "air-leak");
  const openedBy = chosen<"command" | "hand-vacuum">(
    setup,
    "openedBy",
    car.context.vehicle.airValveWorked === "electric" ? "command" : "hand-vacuum",
  );
  const shut = faultsThere(bay, place, "air-valve-stuck", "air-ports").length > 0;
  const arrives = shut ? 0 : airArrives(car, openedBy);
  const idle = stateAt(car, IDLE);
  const valves = car.context.layout.joints.some((j) => j.id === "air-valve-2") ? 2 : 1;
  const share = (PUMP * arrives) / valves / idle.air;
  const lean = share > LEAN;
  return {
    joint: place,
    runBy: chosen(setup, "runBy", "scan-tool"),
    pumped: !dead,
    window: 30,
    rearmed: chosen(setup, "rearmed", true),
    engineRunning: chosen(setup, "engineRunning", true),
    openedBy,
    oxygen: lean ? "lean" : "no-change",
    watched: lean ? percent(2 + noise.uniform(0, 2)) : 15,
    soaped: true,
    bubbles: leak?.cause.joint && !dead && showsTo(car, leak, "smoke") ? [leak.cause.joint] : [],
    whenShut: faultsThere(bay, place, "air-valve-back").length > 0 ? "pulses" : "quiet",
  };
};
