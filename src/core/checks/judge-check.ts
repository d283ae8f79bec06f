import { inSentence } from "../sentence";
import { formatQuantity, fromSi, toSi } from "../units";
import { FACT_NAMES, isKnown } from "../vehicle";
import { columnsOf } from "./columns";
import type { CheckContext } from "./context";
import type { Reading } from "./contract";
import { simulatedDevice } from "./fields";
import type { CheckId } from "./ids";
import { onScale } from "./readings";
import { CHECKS } from "./registry";
import type { RequiredSize } from "./required-size";
import { jointName, type Verdict, voidVerdict } from "./verdict";

/** Judges a record of any kind; the record has passed its kind's schema at the door. */
export function judgeCheck(kind: CheckId, record: object, context: CheckContext): Verdict {
  const check = CHECKS[kind];
  const place = check.place?.(record);
  if (place !== undefined && check.places && !check.places(context).includes(place)) {
    const name = inSentence(context.layout.joints.find((j) => j.id === place)?.name ?? place);
    return voidVerdict(`${check.name}: not at the ${name}`, "this check says nothing of such a part, or the vehicle has none");
  }
  const held = againstJob(kind, record, context);
  const judged = withSofter(judgedOrNot(kind, held, context), record, held);
  const verdict = withHidden(onScale(judged, check.fields.members, held), check.hides?.(held) ?? [], context);
  const device = context.practice ? undefined : simulatedDevice(record);
  if (device !== undefined)
    return voidVerdict(
      "Read from a simulated device: it proves nothing of this car",
      `${device} is simulated; on a car that reads so it would say: ${verdict.headline}`,
    );
  const open = stillNeeded(kind, context);
  if (open === undefined || verdict.outcome === "void") return verdict;
  const { observation, also, tested, word, ...shown } = verdict;
  // What was found is found on any car; that nothing is wrong rests on what car it is.
  return verdict.outcome === "pass"
    ? { ...shown, outcome: "unsure", reasons: [open, ...verdict.reasons], zones: [] }
    : { ...verdict, reasons: [...verdict.reasons, open] };
}

/** Values that the physics refuses to reckon with, no instrument can have shown on a car. */
function judgedOrNot(kind: CheckId, record: object, context: CheckContext): Verdict {
  try {
    return CHECKS[kind].judge(record, context);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return voidVerdict("This record cannot be judged", `look at units, signs and what was read where (${error.message})`);
  }
}

/** A record of the vapour system held against what the job asks, where it brings something softer or nothing. */
function againstJob(kind: CheckId, record: object, { required }: CheckContext): object {
  if (!required || !("required" in CHECKS[kind].fields.members)) return record;
  const { required: own } = record as { readonly required?: RequiredSize };
  return own && toSi(own.size) <= toSi(required.size) * (1 + 1e-9) ? record : { ...record, required };
}

/** A verdict that says that its record brought a softer bar than the job's. */
function withSofter(verdict: Verdict, record: object, held: object): Verdict {
  const { required: own } = record as { readonly required?: RequiredSize };
  const { required: bar } = held as { readonly required?: RequiredSize };
  if (record === held || !own || !bar || verdict.outcome === "void") return verdict;
  const size = (q: RequiredSize) => formatQuantity(fromSi(toSi(q.size), "mm"));
  return {
    ...verdict,
    reasons: [...verdict.reasons, `held against ${size(bar)} (${bar.source}), not the ${size(own)} it was recorded with`],
  };
}

/** A verdict that names what its own gauge stood in the place of. */
function withHidden(verdict: Verdict, hidden: readonly string[], { layout }: CheckContext): Verdict {
  if (verdict.outcome === "void" || hidden.length === 0) return verdict;
  const says = hidden.map(
    (id) => `${inSentence(jointName(layout, id))} was off for this check: untested until it is back and looked at`,
  );
  return { ...verdict, reasons: [...verdict.reasons, ...says] };
}

/** Readings, one number a row, in the units it was taken in. */
export const readingsOf = (kind: CheckId, record: object): readonly Reading[] =>
  CHECKS[kind].readings?.(record) ?? columnsOf(CHECKS[kind].fields.members, record);

/** Facts that must still be said of the vehicle before a check of this kind can clear anything; undefined when nothing. */
export function stillNeeded(kind: CheckId, { vehicle }: Pick<CheckContext, "vehicle">): string | undefined {
  const open = (CHECKS[kind].needs ?? []).filter((fact) => !isKnown(vehicle, fact)).map((fact) => FACT_NAMES[fact]);
  return open.length > 0 ? `not known of this vehicle yet: ${open.join(", ")}. Until then this clears nothing` : undefined;
}
