import { inSentence } from "../../sentence";
import type { Candidate, Family } from "../candidate";
import type { CheckContext } from "../check";
import { commandedOf } from "../commanded";

export const outputCandidates = ({ layout }: CheckContext, families: readonly Family[]): Candidate[] =>
  commandedOf(layout, families).map(({ id, name }) => ({
    place: id,
    name: `Command the ${inSentence(name)}`,
    minutes: 3,
    penalty: 1,
    outcomes: [`output-works:${id}`, `output-dead:${id}`],
    tested: [id],
    why: "a scan-tool command, nothing comes off",
    free: true,
  }));
