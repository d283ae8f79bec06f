import type { Layout } from "../../vehicle";
import type { Candidate } from "../candidate";
import type { CheckContext } from "../context";
import type { Seen } from "./rows";

/** Spots a probe is taken to: seals and hoses that the engine sucks at. */
const SUCKED: readonly string[] = [
  "manifold",
  "metered-duct",
  "crankcase",
  "booster-branch",
  "breather",
  "vacuum-supply",
  "flap-actuator",
];
/** Ids of the spots that this vehicle has. */
export const spotsOf = ({ joints }: Layout): string[] =>
  joints.filter((j) => j.kind === "seal" && SUCKED.includes(j.from)).map((j) => j.id);
/** Factor on fire risk in the bay. */
const FLAMMABLE = 0.95;

export function probeCandidates({ layout, vehicle, house }: CheckContext): Candidate<Seen>[] {
  if (vehicle.fuel !== "petrol") return [];
  const spots = spotsOf(layout);
  return [
    {
      name: "Enrichment probe",
      minutes: 4 + 0.5 * spots.length,
      penalty: house.firstLocator === "spray" ? 1 : FLAMMABLE,
      outcomes: ["probe-quiet", ...spots.map((id): Seen => `probe-at:${id}`)],
      tested: spots,
      why: `takes ${spots.length} spots one by one, nothing comes off`,
      whenLean: true,
    },
  ];
}
