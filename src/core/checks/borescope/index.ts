import { FAMILY_IDS } from "../../faults";
import { inSentence } from "../../sentence";
import { atomOf } from "../claim";
import type { CheckKind } from "../contract";
import { jointName } from "../verdict";
import { borescopeCandidates, PASSAGES } from "./candidates";
import { type BorescopeRecord, borescopeFields, borescopeForm, portKey } from "./fields";
import { judgeBorescope, portSays } from "./judge";
import { planBorescope } from "./plan";
import { rows, type Seen } from "./rows";

export * from "./fields";

export const borescope: CheckKind<BorescopeRecord, { readonly joint: string }, Seen> = {
  id: "borescope",
  name: "Borescope",
  words: { pass: "Open", fail: "Blocked" },
  aim: "Ports and passages graded by the share that is open",
  engine: "standing",
  tool: "borescope",
  role: "measures",
  shelf: "standing",
  families: FAMILY_IDS,
  rows,
  candidates: borescopeCandidates,
  hot: { why: "the engine is hot: let it cool" },
  // Port by port: one that was blocked is answered by itself, and not by its neighbours.
  claims: (record, verdict, context) =>
    verdict.outcome === "void"
      ? []
      : record.ports.map((port) => ({
          ...atomOf("open", record.joint, portKey(port.name)),
          says: portSays(port, context),
          words: `${port.name} of the ${inSentence(jointName(context.layout, record.joint))} open`,
          rests: [record.joint],
        })),
  byPart: true,
  setup: (r) => [r.joint],
  irrelevant: {
    when: "what is open is open, cleaned or not",
  },
  fields: borescopeFields,
  form: borescopeForm,
  plan: planBorescope,
  judge: judgeBorescope,
  places: ({ layout }) => layout.joints.filter((j) => PASSAGES.some(([id]) => id === j.id)).map((j) => j.id),
  place: (r) => r.joint,
};
