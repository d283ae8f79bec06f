import { formatNumber } from "../../units";
import type { CheckContext } from "../context";
import { jointName, type Verdict, voidVerdict } from "../verdict";
import type { OutputRecord } from "./fields";
import type { Seen } from "./rows";

/** A commanded part answers within this, s; own judgement. */
const ANSWERS_WITHIN = 15;

/** Judges a commanded output: the tool's own traps first, then what answered. */
export function judgeOutput(record: OutputRecord, context: CheckContext): Verdict<Seen> {
  const name = jointName(context.layout, record.joint);
  if (!record.rearmed) {
    return voidVerdict(
      `${record.output}: the command proves nothing`,
      "the tool had not been re-armed: cycle the key or restart the engine, then command it again",
    );
  }
  if (record.seenAfter > record.limit) {
    return voidVerdict(
      `${record.output}: the command proves nothing`,
      `it was watched ${formatNumber(record.seenAfter - record.limit, 0)} s after the command timed out`,
    );
  }
  if (record.seen === "as-expected" && record.seenAfter > ANSWERS_WITHIN)
    return {
      outcome: "unsure",
      headline: `${name} seemed to respond, ${formatNumber(record.seenAfter, 0)} s after the command`,
      measures: [],
      reasons: [
        "a commanded part responds within seconds: what came so late may be the engine's own. Command it off and on again and watch",
      ],
      zones: [],
    };
  const told = record.note ? [record.note] : [];
  if (record.seen === "as-expected") {
    return {
      outcome: "pass",
      headline: `${name} answers: ${record.expected}`,
      measures: [],
      reasons: ["it responds to a command; whether it also seals is another check", ...told],
      observation: `output-works:${record.joint}`,
      tested: [record.joint],
      zones: [],
    };
  }
  return {
    outcome: "fail",
    headline:
      record.seen === "nothing" ? `${name} does not answer “${record.command}”` : `${name} responds, but not as it should`,
    measures: [],
    reasons: [...told, "circuit next: supply, control, voltage across it while commanded; then the part"],
    observation: `output-dead:${record.joint}`,
    tested: [record.joint],
    zones: [],
  };
}
