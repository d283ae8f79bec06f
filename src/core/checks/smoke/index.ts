import type { CheckKind } from "../contract";
import { smokeCandidates } from "./candidates";
import { smokeClaims, smokeSetup } from "./claims";
import { type SmokeRun, smokeFields } from "./fields";
import { judgeSmoke } from "./judge";
import { planSmoke, type SmokeAim } from "./plan";
import { smokeProof } from "./proof";
import { rows, type Seen } from "./rows";
import { readSections } from "./sections";

export { leaksSeen } from "../seen";
export * from "./claims";
export * from "./draft";
export * from "./fields";
export * from "./judge";
export * from "./plan";
export { proofFault } from "./proof";
export * from "./reading";
export * from "./sections";
export * from "./setup-form";
export * from "./traps";

export const smoke: CheckKind<SmokeRun, SmokeAim, Seen> = {
  id: "smoke",
  name: "Smoke run",
  words: { pass: "Tight", fail: "Leaking" },
  aim: "Fill what is under suspicion and see where it comes out",
  engine: "standing",
  tool: "smoke-machine",
  needs: ["induction", "fitted"],
  role: "measures",
  inspects: { circuit: "Intake", minutes: 20, by: ["smoke", "intake", "all"] },
  shelf: "standing",
  together: (runs, layout) =>
    readSections(
      runs.map(({ record, verdict }) => ({ run: record, verdict })),
      layout,
    ),
  families: ["engine", "boost"],
  rows,
  candidates: smokeCandidates,
  sweeps: true,
  hot: { why: "the exhaust is hot: let it cool", waits: true },
  locator: ["smoke"],
  claims: (run, verdict, context) => smokeClaims(run, verdict, context, "intake"),
  setup: smokeSetup,
  ownCommands: smokeSetup,
  machineProof: (r) => smokeProof(r, r.machine.ratedPressure),
  irrelevant: {
    "arrivals.at": "that smoke arrived says it, not when; only many within one second are doubted",
    heldOpen: "smoke gets there where another way leads, held open or not",
    heaterOnAt: "smoke that was seen was made",
    temperature: "it goes into a size alone",
    "units.flow": "through the engine the ball says nothing of a small leak",
    "units.pressure": "near the machine's rated pressure a unit of the same size reads alike",
  },
  fields: smokeFields,
  plan: planSmoke,
  judge: judgeSmoke,
  readings: (run) =>
    run.samples.flatMap(([seconds, flow, pressure], point) => [
      { reading: "smoke flow", value: flow, unit: run.units.flow, point, seconds },
      { reading: "smoke pressure", value: pressure, unit: run.units.pressure, kind: "gauge", point, seconds },
    ]),
  place: (run) => run.entry,
};
