import type { Family } from "../../faults";
import { inSentence } from "../../sentence";
import type { Candidate } from "../candidate";
import { commandedOf } from "../commanded";
import type { CheckContext } from "../context";
import type { Seen } from "./rows";

export const outputCandidates = ({ layout }: CheckContext, families: readonly Family[]): Candidate<Seen>[] =>
  commandedOf(layout, families).map(({ id, name }) => ({
    place: id,
    name: `Command the ${inSentence(name)}`,
    minutes: 3,
    penalty: 1,
    outcomes: [`output-works:${id}`, `output-dead:${id}`],
    tested: [id],
    why: "a scan-tool command, nothing comes off",
  }));
