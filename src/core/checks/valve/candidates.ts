import type { Family } from "../../faults";
import { inSentence } from "../../sentence";
import type { Candidate } from "../candidate";
import { commandedOf } from "../commanded";
import type { CheckContext } from "../context";
import type { Seen } from "./rows";

export const valveCandidates = ({ layout }: CheckContext, families: readonly Family[]): Candidate<Seen>[] =>
  commandedOf(layout, families)
    .filter((j) => j.kind === "valve")
    .map(({ id, name }) => ({
      place: id,
      name: `Both states of the ${inSentence(name)}`,
      minutes: 8,
      penalty: 0.85,
      outcomes: [`valve-leaks:${id}`, `valve-stuck:${id}`, "valve-good"],
      tested: [id],
      why: "its seat and its stroke, each by itself",
    }));
