import { impossibleGas } from "../../gas/exhaust";
import { judgeExhaust } from "../../gas/exhaust-origin";
import { formatNumber } from "../../units";
import type { CheckContext } from "../context";
import { type Measure, type Verdict, voidVerdict } from "../verdict";
import type { GasPoint, GasRecord } from "./fields";
import type { Seen } from "./rows";

const NAMES = { idle: "At idle", raised: "At 2500 rpm" } as const;
/** The ECU's own λ and the gases' lie no further apart where neither is wrong. */
const APART = 0.05;
/** Much of both at once: a charge that did not burn, %. */
const UNBURNT = { co: 1, o2: 1.5 } as const;

/** Judges the gases at the tail, the worse of its points first; states excess air, and its origin only where something tells it. */
export function judgeExhaustGas(record: GasRecord, { vehicle }: Pick<CheckContext, "vehicle">): Verdict<Seen> {
  const lost = (trap: string) => voidVerdict("These gases prove nothing", trap);
  if (vehicle.fuel === "diesel" || record.fuel === "diesel")
    return lost("a diesel always runs with more air than it burns: λ says nothing of a leak there");
  if (!record.warm) return lost("engine or catalyst was cold: warm both up, hold 2500 rpm for three minutes first");
  if (!record.zeroed) return lost("the analyser was not at zero, or did not pass its own leak check");
  for (const at of ["idle", "raised"] as const) {
    const cannot = record[at] && impossibleGas(record[at], record.fuel);
    if (cannot) return lost(`${NAMES[at].toLowerCase()}: ${cannot}`);
  }
  const points = (["idle", "raised"] as const).flatMap((at) => {
    const point = record[at];
    return point
      ? [
          {
            at,
            point,
            judged: judgeExhaust({ ...point, fuel: record.fuel, ...(record.loop === "unknown" ? {} : { loop: record.loop }) }),
          },
        ]
      : [];
  });
  const measures = points.map(
    ({ at, judged }): Measure => ({
      name: `λ at the tail, ${NAMES[at].toLowerCase()}`,
      value: { value: judged.lambda, unit: "λ" },
      limit: "0.97 to 1.03",
      limitSource: "shop default",
    }),
  );
  const base = { measures, zones: [] };
  const order = ["fail", "unsure", "pass"] as const;
  const [worst] = points.toSorted(
    (a, b) =>
      order.indexOf(a.judged.outcome) - order.indexOf(b.judged.outcome) ||
      Math.abs(b.judged.excessAir) - Math.abs(a.judged.excessAir),
  );
  if (!worst) return lost("nothing was read");
  const { judged, point, at } = worst;
  const reasons = points.flatMap((p) => p.judged.reasons.map((r) => `${NAMES[p.at].toLowerCase()}: ${r}`));
  const shallow = record.probe === "shallow";
  if (judged.outcome !== "fail") {
    const one = points.length < 2 ? ["read it at idle and at 2500 rpm: a leak shows at one of them only"] : [];
    const thin = shallow ? ["the probe was not deep enough: air at the tail's end thins what it reads"] : [];
    const apart = points.flatMap((p) =>
      p.point.ecuLambda !== undefined && Math.abs(p.point.ecuLambda - p.judged.lambda) > APART
        ? [
            `${NAMES[p.at].toLowerCase()}: the ECU's own λ is ${formatNumber(p.point.ecuLambda, 2)} and the gases say ${formatNumber(p.judged.lambda, 2)}: one of the two is wrong, read both at the same moment`,
          ]
        : [],
    );
    const open = [...thin, ...apart, ...one];
    const good = judged.outcome === "pass" && open.length === 0;
    return {
      ...base,
      outcome: good ? "pass" : "unsure",
      headline:
        judged.outcome === "pass" ? "No excess air at the tail, and none missing" : "Too near the limit for this analyser",
      reasons: [...open, ...reasons],
      ...(good ? { observation: "gas-good" as const } : {}),
    };
  }
  const air = formatNumber(100 * judged.excessAir, 0);
  const lean = judged.excessAir > 0;
  // Thinned at the tail's end by a shallow probe: it says nothing of the engine.
  if (lean && shallow)
    return {
      ...base,
      outcome: "unsure",
      headline: `${air} % excess air, by a probe that was not deep enough`,
      reasons: ["probe as deep as the maker of the analyser asks, or lengthen the pipe, then read again", ...reasons],
    };
  const seen = seenOf(point, judged.origin, lean);
  return {
    ...base,
    outcome: "fail",
    headline:
      seen === "gas-misfire"
        ? "Fuel and air come out unburnt: a cylinder that does not burn"
        : lean
          ? `${air} % excess air ${NAMES[at].toLowerCase()}${seen === "gas-lean" ? "; where it came in cannot be told apart yet" : seen === "gas-air-behind" ? ", and not with the mixture" : ", with the mixture"}`
          : `Too little air ${NAMES[at].toLowerCase()}: rich`,
    reasons,
    observation: seen,
  };
}

function seenOf({ co, o2 }: GasPoint, origin: "mixture" | "exhaust" | "cannot-tell", lean: boolean): Seen {
  if (co >= UNBURNT.co && o2 >= UNBURNT.o2) return "gas-misfire";
  if (!lean) return "gas-rich";
  return origin === "exhaust" ? "gas-air-behind" : origin === "mixture" ? "gas-lean-mixture" : "gas-lean";
}
