import type { Family } from "../../faults";
import { inSentence } from "../../sentence";
import type { Candidate } from "../candidate";
import { commandedOf } from "../commanded";
import type { CheckContext } from "../context";
import type { Seen } from "./rows";

export const circuitCandidates = ({ layout }: CheckContext, families: readonly Family[]): Candidate<Seen>[] =>
  commandedOf(layout, families).map(({ id, name }) => ({
    place: id,
    name: `Circuit of the ${inSentence(name)}`,
    minutes: 8,
    penalty: 0.95,
    outcomes: [`circuit-dead:${id}`, `circuit-good:${id}`],
    tested: [id],
    why: "feed, control and load, pin by pin",
  }));
