import type { Layout } from "../vehicle";
import type { SmokeRun } from "./smoke/fields";

/** A run, of the vapour system also with what keeps its vent shut */
type Run = Pick<SmokeRun, "seen" | "blocked"> & { readonly vent?: { readonly by: "command" | "plug" } };

/** A valve that is told to shut is no plug: what comes past it is its own leak. */
const isPlug = ({ blocked, vent }: Run, id: string) => blocked.includes(id) && !(vent?.by === "command" && id === "vent-valve");
const byDesign = (layout: Layout, id: string) => layout.joints.find((j) => j.id === id)?.weeps === true;

/** Smoke that came past a plug: no leak of the car, and the run is spoiled by it. */
export const pastPlugs = (run: Run): SmokeRun["seen"] => run.seen.filter((s) => isPlug(run, s.joint));

/** Smoke that comes out where none should: not past a plug, nor where some passes by design. */
export const leaksSeen = (run: Run, layout: Layout): SmokeRun["seen"] =>
  run.seen.filter((s) => !isPlug(run, s.joint) && !byDesign(layout, s.joint));

/** Where smoke was seen that some passes by design: no finding by itself, and no clean run either. */
export const weepsSeen = (run: Run, layout: Layout): string[] => [
  ...new Set(run.seen.map((s) => s.joint).filter((id) => !isPlug(run, id) && byDesign(layout, id))),
];
