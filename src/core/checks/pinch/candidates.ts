import { inSentence } from "../../sentence";
import type { Candidate } from "../candidate";
import type { CheckContext } from "../context";
import { behind } from "./judge";
import type { Seen } from "./rows";

export function pinchCandidates({ layout, vehicle }: CheckContext): Candidate<Seen>[] {
  if (vehicle.fuel !== "petrol") return [];
  return layout.joints
    .filter((j) => j.pinchable)
    .map((hose) => {
      const tested = behind(layout, hose.id);
      return {
        place: hose.id,
        name: `Pinch the ${inSentence(hose.name)}`,
        minutes: 5,
        penalty: 1,
        outcomes: ["pinch-recovers", "pinch-partly", "pinch-no-change"],
        tested,
        why: `clears or confirms ${tested.length === 1 ? "it" : `all ${tested.length} places behind it`}`,
      };
    });
}
