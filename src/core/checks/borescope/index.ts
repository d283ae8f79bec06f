import { FAMILY_IDS } from "../../faults";
import { ofPart, saysOf } from "../asked";
import { type CheckKind, readingOf } from "../check";
import { borescopeCandidates, PASSAGES } from "./candidates";
import { borescopeForm } from "./form";
import { judgeBorescope } from "./judge";
import { planBorescope } from "./plan";
import { type BorescopeRecord, borescopeSchema } from "./record";
import { rows, type Seen } from "./rows";

export * from "./record";

export const borescope: CheckKind<BorescopeRecord, { readonly joint: string }, Seen> = {
  id: "borescope",
  name: "Borescope",
  words: { pass: "Open", fail: "Blocked" },
  aim: "Ports and passages graded by the share that is open",
  engine: "standing",
  role: "measures",
  shelf: "standing",
  families: FAMILY_IDS,
  rows,
  candidates: borescopeCandidates,
  hot: { why: "the engine is hot: let it cool" },
  asks: (record, verdict, { layout }) =>
    verdict.outcome === "void" ? [] : [ofPart(layout, "open", record.joint, "open", saysOf(verdict.outcome))],
  byPart: true,
  schema: borescopeSchema,
  form: borescopeForm,
  plan: planBorescope,
  judge: judgeBorescope,
  readings: ({ ports }) =>
    ports.flatMap((p, point) => [
      { reading: `${p.name}, straight`, value: p.straight, unit: "%", point },
      ...readingOf(`${p.name}, tool in`, p.depth, { point }),
      ...(p.side === undefined ? [] : [{ reading: `${p.name}, from the side`, value: p.side, unit: "%", point }]),
    ]),
  places: ({ layout }) => layout.joints.filter((j) => PASSAGES.some(([id]) => id === j.id)).map((j) => j.id),
  place: (r) => r.joint,
};
