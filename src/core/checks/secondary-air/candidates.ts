import { inSentence } from "../../sentence";
import type { Layout } from "../../vehicle";
import type { Candidate } from "../candidate";
import type { CheckContext } from "../context";
import { SOAPED } from "./fields";
import type { Seen } from "./rows";

/** The switching valves of this vehicle, a bank each. */
export const airValves = ({ joints }: Layout) => joints.filter((j) => j.from === "air-hose" && j.kind === "valve");

export const secondaryAirCandidates = ({ layout }: CheckContext): Candidate<Seen>[] =>
  airValves(layout).map(({ id, name }) => ({
    place: id,
    name: `Secondary air through the ${inSentence(name)}`,
    minutes: 14,
    penalty: 0.95,
    outcomes: [
      "air-arrives",
      "air-pump-dead",
      `air-blocked:${id}`,
      `air-back:${id}`,
      ...SOAPED.map((joint): Seen => `air-escapes:${joint}`),
    ],
    tested: [id, ...SOAPED, "air-pump"],
    why: "pump, joints, valve and ports by one run",
  }));
