import { FAMILY_IDS } from "../../faults";
import { ofPart, saysOf } from "../claim";
import { electricOf } from "../commanded";
import type { CheckKind } from "../contract";
import { outputCandidates } from "./candidates";
import { type OutputRecord, outputFields, outputForm } from "./fields";
import { judgeOutput } from "./judge";
import { planOutput } from "./plan";
import { rows, type Seen } from "./rows";

export * from "./fields";

export const output: CheckKind<OutputRecord, { readonly joint: string; readonly limit: number }, Seen> = {
  id: "output",
  name: "Commanded output",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Command it from the scan tool and see what answers",
  engine: "running",
  tool: "scan-tool",
  role: "measures",
  shelf: "electric",
  families: FAMILY_IDS,
  rows,
  candidates: outputCandidates,
  claims: (record, verdict, { layout }) =>
    verdict.outcome === "void"
      ? []
      : [ofPart(layout, "answers", record.joint, "responds to its command", saysOf(verdict.outcome))],
  byPart: true,
  ownCommands: (r) => [r.joint],
  irrelevant: {
    seenAfter: "at once is as good as soon",
  },
  fields: outputFields,
  form: outputForm,
  plan: planOutput,
  judge: judgeOutput,
  places: ({ layout }) => electricOf(layout),
  place: (r) => r.joint,
};
