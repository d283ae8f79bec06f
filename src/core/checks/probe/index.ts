import type { CheckKind } from "../contract";
import { probeCandidates, spotsOf } from "./candidates";
import { probeClaims } from "./claims";
import { type Agent, type ProbeRecord, probeFields, probeForm } from "./fields";
import { judgeProbe } from "./judge";
import { planProbe, unfit } from "./plan";
import { rows, type Seen } from "./rows";

export * from "./extract";
export * from "./fields";
export * from "./judge";
export * from "./plan";

export const probe: CheckKind<ProbeRecord, { readonly agent: Agent }, Seen> = {
  id: "probe",
  name: "Enrichment probe",
  words: { pass: "No reaction", fail: "Reacts" },
  aim: "One spot at a time, engine running: a reaction names the spot",
  engine: "warm-running",
  tool: "enrichment",
  unfit,
  role: "locates",
  places: ({ layout }) => spotsOf(layout),
  shelf: "running",
  rows,
  candidates: probeCandidates,
  locator: ["gas", "spray"],
  claims: probeClaims,
  fields: probeFields,
  form: probeForm,
  plan: planProbe,
  judge: judgeProbe,
  readings: ({ taps }) =>
    taps.flatMap(({ joint, at, typed }, point) => {
      const where = { point, ...(at === undefined ? {} : { seconds: at }) };
      if (!typed) return [{ reading: `tap at ${joint}`, value: at ?? 0, unit: "s", ...where }];
      return [
        {
          reading: `${typed.shows === "short" ? "short-term trim" : "trim"} before, ${joint}`,
          value: typed.trimBefore,
          unit: "%",
          ...where,
        },
        {
          reading: `${typed.shows === "short" ? "short-term trim" : "trim"} after, ${joint}`,
          value: typed.trimAfter,
          unit: "%",
          ...where,
        },
        { reading: `speed before, ${joint}`, value: typed.rpmBefore, unit: "rpm", ...where },
        { reading: `speed after, ${joint}`, value: typed.rpmAfter, unit: "rpm", ...where },
      ];
    }),
};
