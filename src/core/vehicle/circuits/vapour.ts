import { toSi } from "../../units";
import type { VehicleFacts } from "../facts";
import { fitted, hose, litre, off, seal, tie, usual, type When, zone } from "./parts";

const evap = fitted("evap");
const where =
  (is: (facts: NonNullable<VehicleFacts["evap"]>) => boolean): When =>
  (f) =>
    evap(f) && f.evap !== undefined && is(f.evap);
const not =
  (when: When): When =>
  (f) =>
    evap(f) && !when(f);
const capless = where((e) => e.neck === "capless");
const neckFlap = where((e) => e.neckFlap);
const tankOneWay = where((e) => e.tankOneWay);
const servicePort = where((e) => e.servicePort);
const canisterPump = where((e) => e.monitor === "canister-pump");

/** Gas space of a tank that is about half full; of a tank nobody described, 50 L. */
const tankGas = (f: VehicleFacts) => 0.6 * (f.evap ? toSi(f.evap.tank) : 50 * litre);

/** Causes that keep fuel vapour in: from the purge valve to the filler cap. */
export const ZONES = [
  zone(evap, "purge-line", "Purge line", 0.2 * litre),
  zone(evap, "canister", "Canister", 2.5 * litre),
  zone(evap, "vent-hose", "Vent hose", 0.3 * litre),
  zone(evap, "tank", "Tank vapour space", tankGas),
  zone(evap, "neck", "Filler neck", 1 * litre),
];

export const JOINTS = [
  tie(evap, "purge-valve", "Purge valve", "manifold", "purge-line", "valve", "closed"),
  hose(evap, "purge-hose", "Purge hose at the manifold", off("purge hose off the manifold", 28), "purge-line"),
  seal(evap, "purge-line-joint", "Purge line, split or connector", "purge-line", {
    end: usual("purge line off at the purge valve", 30, { at: "purge-valve" }),
  }),
  seal(servicePort, "service-port", "Service port", "purge-line", {
    end: usual("valve core out of the service port, adapter on", 22),
  }),
  tie(evap, "purge-canister", "Purge line at the canister", "purge-line", "canister", "pipe", "open", {
    end: off("purge line off the canister", 34),
  }),
  seal(evap, "canister-joint", "Canister, joint or crack", "canister"),
  tie(not(canisterPump), "vent-valve", "Vent valve", "canister", "vent-hose", "valve"),
  tie(canisterPump, "vent-valve", "Leak-check pump and vent", "canister", "vent-hose", "valve"),
  tie(evap, "vent-filter", "Vent filter", "vent-hose", "outside", "opening"),
  tie(not(tankOneWay), "fill-limit-valve", "Fill-limit valve", "canister", "tank", "valve"),
  tie(tankOneWay, "fill-limit-valve", "Fill-limit valve, one way", "canister", "tank", "valve", "one-way"),
  seal(evap, "tank-line", "Vapour line at the tank", "tank", {
    end: off("vapour line off the tank", 40, { at: "fill-limit-valve" }),
  }),
  seal(evap, "tank-flange", "Pump or sender flange", "tank"),
  seal(evap, "rollover-grommet", "Rollover-valve grommet", "tank"),
  tie(neckFlap, "neck-flap", "Neck flap", "neck", "tank", "valve", "closed", { pushedBy: "filler-cap" }),
  tie(not(neckFlap), "neck-tank", "Neck at the tank", "neck", "tank", "pipe"),
  seal(evap, "neck-hose", "Filler neck, rust or hose", "neck"),
  seal(not(capless), "filler-cap", "Filler cap", "neck", { end: usual("filler cap off, adapter in the neck", 24) }),
  seal(not(capless), "cap-seat", "Cap's seat in the neck", "neck", { seatOf: "filler-cap" }),
  seal(capless, "filler-cap", "Capless seal", "neck", { end: usual("capless seal pushed open by the adapter", 24) }),
];
