import type { Candidate } from "../candidate";
import type { CheckContext } from "../context";
import type { Seen } from "./rows";

const LINKS: readonly string[] = ["flap-line", "flap-circuit", "flap-solenoid", "flap-diaphragm", "flap-shaft", "flap-plate"];

export function chainCandidates({ vehicle }: CheckContext): Candidate<Seen>[] {
  if (!vehicle.fitted.includes("runner-flaps")) return [];
  return [
    {
      name: "Runner-flap chain",
      minutes: 12,
      penalty: 0.95,
      outcomes: ["chain-good", ...LINKS.map((id): Seen => `chain-broken:${id}`)],
      tested: [...LINKS, "flap-pipe"],
      why: "from supply to plate, stops at the first broken link",
    },
  ];
}
