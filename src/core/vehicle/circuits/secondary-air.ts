import { both, fitted, litre, oneBank, seal, tie, twoBanks, usual, zone } from "./parts";

const air = fitted("secondary-air");

/** Secondary air, which blows air into the exhaust ports of a cold engine: from the pump to the switching valves. */
export const ZONES = [zone(air, "air-hose", "Secondary-air hose", 1 * litre)];

export const JOINTS = [
  tie(air, "air-pump", "Secondary-air pump", "air-hose", "outside", "opening", "open", {
    end: usual("hose off the secondary-air pump", 24),
  }),
  seal(air, "pump-seam", "Secondary-air pump, body or seam", "air-hose"),
  seal(air, "air-hose-joint", "Secondary-air hose, joint or split", "air-hose"),
  tie(both(air, oneBank), "air-valve", "Air switching valve", "air-hose", "exhaust-manifold", "valve", "closed"),
  tie(both(air, twoBanks), "air-valve-1", "Air switching valve, bank 1", "air-hose", "exhaust-manifold", "valve", "closed"),
  tie(both(air, twoBanks), "air-valve-2", "Air switching valve, bank 2", "air-hose", "exhaust-manifold", "valve", "closed"),
];
