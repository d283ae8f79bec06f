import type { CheckKind } from "../contract";
import { pulldownCandidates } from "./candidates";
import { pulldownClaims } from "./claims";
import { type PulldownRecord, pulldownFields, pulldownForm } from "./fields";
import { judgePulldown } from "./judge";
import { planPulldown, unfit } from "./plan";
import { rows, type Seen } from "./rows";

export * from "./fields";
export * from "./judge";
export * from "./plan";

export const pulldown: CheckKind<PulldownRecord, { readonly vent: "command" | "plug" }, Seen> = {
  id: "pulldown",
  name: "Pull-down trace",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Engine vacuum pulls the shut system down: pull-down, hold and relief, each by itself",
  engine: "warm-running",
  tool: "scan-tool",
  unfit,
  role: "measures",
  shelf: "vapour",
  families: ["evap"],
  rows,
  candidates: pulldownCandidates,
  claims: pulldownClaims,
  ownCommands: () => ["purge-valve", "vent-valve"],
  setup: () => ["vent-filter"],
  irrelevant: {
    "required.size": "the job's own bar is taken where it is stricter",
    "vent.at": "when the vent shut is read from the trace",
    ventShutAt: "what was pulled is counted from purge open on",
  },
  fields: pulldownFields,
  form: pulldownForm,
  plan: planPulldown,
  judge: judgePulldown,
};
