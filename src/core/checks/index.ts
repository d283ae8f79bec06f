import { inSentence } from "../sentence";
import { FACT_NAMES, isKnown } from "../vehicle";
import { airflow } from "./airflow";
import { backPressure } from "./back-pressure";
import { benchPart } from "./bench-part";
import { boost } from "./boost";
import { borescope } from "./borescope";
import { cabin } from "./cabin";
import { cap } from "./cap";
import { chain } from "./chain";
import { type CheckContext, type CheckKind, jointName, type Reading, type Verdict, voidVerdict } from "./check";
import { circuit } from "./circuit";
import { columnsOf } from "./columns";
import { crankcase } from "./crankcase";
import { decay } from "./decay";
import { egr } from "./egr";
import { evapSmoke } from "./evap-smoke";
import { exhaustGas } from "./exhaust-gas";
import { simulatedDevice } from "./fields";
import { filter } from "./filter";
import { hold } from "./hold";
import { look } from "./look";
import { output } from "./output";
import { pinch } from "./pinch";
import { pressureTest } from "./pressure-test";
import { probe } from "./probe";
import { pulldown } from "./pulldown";
import { onScale } from "./readings";
import { secondaryAir } from "./secondary-air";
import { smoke } from "./smoke";
import { tankSensor } from "./tank-sensor";
import { trims } from "./trims";
import { vacuum } from "./vacuum";
import { valve } from "./valve";
import { ventPath } from "./vent-path";

export * from "./asked";
export * from "./candidate";
export * from "./check";
export * from "./side-by-side";

/** Every kind of check. Adding one adds its folder, its screen and its line here. */
const KINDS = {
  look,
  trims,
  probe,
  vacuum,
  airflow,
  crankcase,
  smoke,
  pinch,
  hold,
  valve,
  output,
  circuit,
  chain,
  borescope,
  "evap-smoke": evapSmoke,
  decay,
  pulldown,
  "vent-path": ventPath,
  cap,
  "tank-sensor": tankSensor,
  "pressure-test": pressureTest,
  filter: filter,
  "secondary-air": secondaryAir,
  boost: boost,
  "exhaust-gas": exhaustGas,
  egr: egr,
  "back-pressure": backPressure,
  "bench-part": benchPart,
  cabin: cabin,
} satisfies Record<string, CheckKind<never, never>>;
export type CheckId = keyof typeof KINDS;
/** The same without their records' types: a record has passed its kind's schema at the door. */
export const CHECKS = KINDS as unknown as Readonly<Record<CheckId, CheckKind>>;

export const CHECK_IDS = Object.keys(CHECKS) as CheckId[];

/** Judges a record of any kind; the record has passed its kind's schema at the door. */
export function judgeCheck(kind: CheckId, record: object, context: CheckContext): Verdict {
  const check = CHECKS[kind];
  const place = check.place?.(record);
  if (place !== undefined && check.places && !check.places(context).includes(place)) {
    const name = inSentence(context.layout.joints.find((j) => j.id === place)?.name ?? place);
    return voidVerdict(`${check.name}: not at the ${name}`, "this check says nothing of such a part, or the vehicle has none");
  }
  const verdict = withHidden(onScale(check.judge(record, context), record), check.hides?.(record) ?? [], context);
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

/** A verdict that names what its own gauge stood in the place of. */
function withHidden(verdict: Verdict, hidden: readonly string[], { layout }: CheckContext): Verdict {
  if (verdict.outcome === "void" || hidden.length === 0) return verdict;
  const says = hidden.map(
    (id) => `${inSentence(jointName(layout, id))} was off for this check: untested until it is back and looked at`,
  );
  return { ...verdict, reasons: [...verdict.reasons, ...says] };
}

/** What was read, one number a row, in the units it was taken in. */
export const readingsOf = (kind: CheckId, record: object): readonly Reading[] =>
  CHECKS[kind].readings?.(record) ?? columnsOf(CHECKS[kind].fields.members, record);

/** What must still be said of the vehicle before a check of this kind can clear anything; undefined when nothing. */
export function stillNeeded(kind: CheckId, { vehicle }: Pick<CheckContext, "vehicle">): string | undefined {
  const open = (CHECKS[kind].needs ?? []).filter((fact) => !isKnown(vehicle, fact)).map((fact) => FACT_NAMES[fact]);
  return open.length > 0 ? `not known of this vehicle yet: ${open.join(", ")}. Until then this clears nothing` : undefined;
}
