import { boostWorkedBy } from "../usual";
import { both, litre, not, off, petrol, seal, throttled, tie, turbo, usual, zone } from "./parts";

/** The boost itself opens the wastegate, by a pipe from the compressor. */
const gatePipe = both(turbo, (f) => boostWorkedBy(f) === "pressure");

const AT_THROTTLE = off("cold pipe off the throttle body", 30, { at: "throttle" });

/** From the compressor to the throttle of a turbocharged engine. */
export const ZONES = [
  zone(turbo, "hot-pipe", "Hot pipe", 1.5 * litre),
  zone(turbo, "cooler", "Cooler", 4 * litre),
  zone(turbo, "cold-pipe", "Cold pipe", 2 * litre),
];

export const JOINTS = [
  tie(turbo, "compressor", "Compressor", "metered-duct", "hot-pipe", "compressor"),
  seal(turbo, "hot-pipe-clamp", "Hot pipe clamp", "hot-pipe", {
    end: usual("hot pipe off the compressor", 32, { at: "compressor" }),
  }),
  seal(turbo, "hot-pipe-split", "Hot pipe", "hot-pipe"),
  tie(turbo, "cooler-inlet", "Cooler inlet", "hot-pipe", "cooler", "pipe", "open", {
    end: off("hot pipe off the cooler", 34),
  }),
  seal(turbo, "cooler-tank", "Cooler end tank", "cooler"),
  tie(turbo, "cooler-outlet", "Cooler outlet", "cooler", "cold-pipe", "pipe", "open", {
    end: off("cold pipe off the cooler", 34),
  }),
  // Records of earlier builds went in at the pipe as a whole: its clamp was off with it.
  seal(turbo, "cold-pipe-split", "Cold pipe", "cold-pipe", { end: { ...AT_THROTTLE, former: true } }),
  seal(turbo, "cold-pipe-clamp", "Cold pipe clamp", "cold-pipe", { seatOf: "cold-pipe-split", end: AT_THROTTLE }),
  seal(gatePipe, "wastegate-pipe", "Wastegate pipe or its diaphragm", "hot-pipe"),
  tie(both(turbo, petrol), "bypass-valve", "Bypass valve", "cold-pipe", "metered-duct", "valve", "closed"),
  tie(both(turbo, throttled, petrol), "throttle", "Throttle", "cold-pipe", "manifold", "throttle", "closed"),
  tie(both(turbo, throttled, not(petrol)), "throttle", "Throttle flap", "cold-pipe", "manifold", "throttle", "open"),
  tie(both(turbo, not(throttled)), "throttle", "Pipe at the manifold", "cold-pipe", "manifold", "pipe", "open"),
];
