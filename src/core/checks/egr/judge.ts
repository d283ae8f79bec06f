import { inSentence } from "../../sentence";
import { formatNumber, toSi } from "../../units";
import type { Says } from "../claim";
import type { CheckContext } from "../context";
import { jointName, type Measure, type Verdict, voidVerdict } from "../verdict";
import type { EgrReading, EgrRecord } from "./fields";
import type { Seen } from "./rows";

/** Speeds that differ by more are no one point, share. */
const SAME_SPEED = 0.08;
/** No engine runs on with more of its fresh air taken away. */
const MOST_LED = 0.75;
/** A change below this share is none; from the shop's limit on it is an answer. */
const NONE = 0.03;

type Answer = { readonly share: number; readonly by: "meter" | "manifold" };

/**
 * How the engine answers an open valve, share: less fresh air by the meter, or more pressure in the manifold. A throttle that holds the
 * speed lets in the same air and shows the rest in the manifold; an engine without one shows it at the meter. More fresh air goes
 * before either: it is the foot's.
 */
function answerOf(shut: EgrReading, open: EgrReading): Answer | undefined {
  const meter = shut.maf && open.maf && { share: 1 - toSi(open.maf) / toSi(shut.maf), by: "meter" as const };
  const manifold = shut.map && open.map && { share: toSi(open.map) / toSi(shut.map) - 1, by: "manifold" as const };
  if (!meter || !manifold) return meter ?? manifold;
  return meter.share < -NONE || meter.share >= manifold.share ? meter : manifold;
}

/** Verdict on its seat: smoke at the tail alone convicts no EGR, the cylinders' own valves may overlap. */
export function passesBy({ seat, watched }: EgrRecord): Says {
  if (seat === "holds") return "good";
  return seat === "passes" && (watched === "pipe" || watched === "tail-turned") ? "bad" : "open";
}

/** Judges an EGR valve: its seat by smoke with the exhaust path watched, its answer to a command by meter or manifold. */
export function judgeEgr(record: EgrRecord, { layout, limits }: CheckContext): Verdict<Seen> {
  const { joint, shut, open } = record;
  const name = jointName(layout, joint);
  if ([shut, open].some((r) => r?.maf && toSi(r.maf) <= 0))
    return voidVerdict(`${name}: these readings cannot be`, "no engine runs on no air: the meter was not read, or is dead");
  const answered = shut && open && answerOf(shut, open);
  if (answered?.by === "meter" && answered.share > MOST_LED)
    return voidVerdict(
      `${name}: these readings cannot be`,
      `an engine does not run with ${formatNumber(100 * answered.share, 0)} % of its air taken away: read shut and open at one speed, on one unit`,
    );
  const answer = answered?.share;
  const least = limits.egrAnswer.value;
  const measures: Measure[] =
    answer === undefined
      ? []
      : [
          {
            name: answered?.by === "meter" ? "Fresh air taken away by opening it" : "Manifold pressure added by opening it",
            value: { value: 100 * answer, unit: "%" },
            limit: `${formatNumber(100 * least, 0)} % or more`,
            limitSource: limits.egrAnswer.source,
          },
        ];
  const base = { measures, zones: [] };
  if (passesBy(record) === "bad")
    return {
      ...base,
      outcome: "fail",
      headline: `${name} leaks by: smoke comes out of the exhaust with it shut`,
      reasons: [
        "an inside leak: nothing is seen outside, and the engine breathes its own exhaust",
        record.watched === "pipe"
          ? "seen at its own pipe: no other way leads there"
          : "the same after the crank was turned: valves that overlap would have changed it",
      ],
      observation: `egr-passes:${joint}`,
      tested: [joint],
      zones: [{ zone: "manifold", state: "leaking", joint, why: "smoke through the shut valve" }],
    };
  if (record.cooler === "loses")
    return {
      ...base,
      outcome: "fail",
      headline: "The EGR cooler loses coolant",
      reasons: ["into the exhaust or the manifold: take it off, close it and put it under water with low pressure on"],
      observation: "egr-cooler",
    };
  if (shut && open && Math.abs(open.rpm / shut.rpm - 1) > SAME_SPEED)
    return voidVerdict(
      `${name}: the readings prove nothing`,
      "shut and open were read at different speeds: hold one speed for both",
    );
  if (shut && open && answer === undefined)
    return voidVerdict(`${name}: the readings prove nothing`, "shut and open were read on different sensors: read one for both");
  if (answer !== undefined && answer < -NONE)
    return voidVerdict(
      `${name}: the readings prove nothing`,
      "more fresh air open than shut: the two readings are swapped, or the speed was not held",
    );
  if (!record.warm && answer !== undefined)
    return voidVerdict(`${name}: the readings prove nothing`, "the engine was cold: the ECU keeps it shut whatever is commanded");
  if (answer !== undefined && answer < NONE)
    return {
      ...base,
      outcome: "fail",
      headline: `${name} does not answer: ${formatNumber(100 * answer, 0)} % between shut and open`,
      reasons: ["stuck, its passage blocked with soot, or not moved at all: command it and watch its rod, then the borescope"],
      observation: `egr-no-answer:${joint}`,
      tested: [joint],
    };
  if (record.seat === "passes")
    return {
      ...base,
      outcome: "unsure",
      headline: `Smoke comes out of the tail with the ${inSentence(name)} shut: through it, or through valves that overlap`,
      reasons: [
        "turn the crank by hand a quarter and look again: what stays the same is the EGR's. Or open its pipe and look there",
      ],
    };
  if (answer === undefined || answer < least || record.seat === "not-tried")
    return {
      ...base,
      outcome: "unsure",
      headline:
        answer === undefined
          ? `${name}: its seat holds; whether it moves was not read`
          : record.seat === "not-tried"
            ? `${name} answers; its seat was not tried`
            : `${name} answers little`,
      reasons: [
        answer === undefined
          ? "command it shut and open at one speed, and read the MAF or the manifold"
          : record.seat === "not-tried"
            ? "smoke from the manifold side with it shut, and the exhaust watched: a seat that leaks shows nowhere else"
            : "ports half blocked do that: look in with a borescope",
      ],
    };
  return {
    ...base,
    outcome: "pass",
    headline: `${name} responds to its command, and its seat holds`,
    reasons: [record.cooler === "not-tried" ? "its cooler was not tried" : "seat and answer were tried apart"],
    observation: "egr-answers",
    tested: [joint],
  };
}
