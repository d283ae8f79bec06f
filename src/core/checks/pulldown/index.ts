import type { CheckKind } from "../check";
import { pulldownAsks } from "./asks";
import { pulldownCandidates } from "./candidates";
import { pulldownForm } from "./form";
import { judgePulldown } from "./judge";
import { planPulldown } from "./plan";
import { type PulldownRecord, pulldownSchema } from "./record";
import { rows, type Seen } from "./rows";

export * from "./judge";
export * from "./plan";
export * from "./record";

export const pulldown: CheckKind<PulldownRecord, { readonly vent: "command" | "plug" }, Seen> = {
  id: "pulldown",
  name: "Pull-down trace",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Engine vacuum pulls the shut system down: pull-down, hold and relief, each by itself",
  engine: "warm-running",
  role: "measures",
  shelf: "vapour",
  families: ["evap"],
  rows,
  candidates: pulldownCandidates,
  asks: pulldownAsks,
  ownCommands: () => ["purge-valve", "vent-valve"],
  setup: () => ["vent-filter"],
  schema: pulldownSchema,
  form: pulldownForm,
  plan: planPulldown,
  judge: judgePulldown,
  readings: (r) =>
    r.points.map(([seconds, value], point) => ({ reading: "tank pressure", value, unit: r.unit, kind: "gauge", point, seconds })),
};
