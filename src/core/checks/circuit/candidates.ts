import { inSentence } from "../../sentence";
import type { Candidate, Family } from "../candidate";
import type { CheckContext } from "../check";
import { commandedOf } from "../commanded";

export const circuitCandidates = ({ layout }: CheckContext, families: readonly Family[]): Candidate[] =>
  commandedOf(layout, families).map(({ id, name }) => ({
    place: id,
    name: `Circuit of the ${inSentence(name)}`,
    minutes: 8,
    penalty: 0.95,
    outcomes: [`circuit-dead:${id}`, `circuit-good:${id}`],
    tested: [id],
    why: "feed, control and load, pin by pin",
  }));
