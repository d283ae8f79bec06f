import { formatNumber, formatQuantity, fromSi, type Quantity, toSi } from "../../units";
import type { CheckContext } from "../context";
import { instrumentDoubt } from "../instrument";
import { type Measure, type Verdict, voidVerdict } from "../verdict";
import type { BackPressure } from "./fields";
import type { Seen } from "./rows";

/** In a snap it may rise to so many times the held reading; what rises beyond that, and beyond the limit, swings shut. */
const SNAP_OVER_HELD = 3;

/** Judges the pressure before the catalyst against the shop's limits; the raised speed decides, idle alone clears nothing. */
export function judgeBackPressure(record: BackPressure, { limits }: Pick<CheckContext, "limits">): Verdict<Seen> {
  if (!record.warm) return voidVerdict("This reading proves nothing", "the engine was cold: it breathes less, warm it up");
  const { idle, raised, snap, instrument } = record;
  const limitOf = (limit: { readonly value: number; readonly source: string }, unit: Quantity["unit"]) => ({
    limit: `at most ${formatNumber(fromSi(limit.value, unit).value, 1)} ${unit}`,
    limitSource: limit.source,
  });
  if ([idle, raised].some((q) => q && toSi(q) < -Math.abs(toSi(instrument.division))))
    return voidVerdict(
      "This reading proves nothing",
      "suction before the catalyst: a gauge the wrong way round, or one off its zero",
    );
  if (raised && toSi(raised) <= 0)
    return voidVerdict(
      "This reading proves nothing",
      "no pressure at all at speed: the gauge was not in the exhaust, or its hose is off",
    );
  const gauge = (q: Quantity): Quantity => ({ ...q, kind: "gauge" });
  const measures: Measure[] = [
    ...(idle ? [{ name: "Before the catalyst, idle", value: gauge(idle), ...limitOf(limits.backIdle, idle.unit) }] : []),
    ...(raised
      ? [{ name: "Before the catalyst, 2500 rpm", value: gauge(raised), ...limitOf(limits.backRaised, raised.unit) }]
      : []),
    ...(snap ? [{ name: "Top of a snap", value: gauge(snap) }] : []),
  ];
  const base = { measures, zones: [] };
  const doubt = instrumentDoubt(instrument, limits.backIdle.value, limits);
  if (doubt) return { ...base, outcome: "unsure", headline: "Gauge not usable: zero or division", reasons: [doubt] };
  const high = [
    idle && toSi(idle) > limits.backIdle.value ? idle : undefined,
    raised && toSi(raised) > limits.backRaised.value ? raised : undefined,
  ].find((q) => q !== undefined);
  if (high)
    return {
      ...base,
      outcome: "fail",
      headline: `Too much pressure before the catalyst: ${formatQuantity(gauge(high))}`,
      reasons: [
        "catalyst, filter, silencer or a crushed pipe: open the exhaust joint by joint from the rear, the reading that falls says which",
        ...(snap && raised && shootsUp(snap, raised, limits) ? ["in a snap it shoots up: what is loose inside swings shut"] : []),
      ],
      observation: "back-high",
    };
  if (idle && raised && toSi(idle) >= toSi(raised) && toSi(raised) > 0)
    return voidVerdict(
      "This reading proves nothing",
      "as much at idle as at speed: gas that flows more presses more. Read both again",
    );
  if (!raised)
    return {
      ...base,
      outcome: "unsure",
      headline: "Idle alone clears nothing",
      reasons: ["hold 2500 rpm and read it there: a blockage shows with the flow"],
    };
  if (!snap)
    return {
      ...base,
      outcome: "unsure",
      headline: "Within limits; no snap was read",
      reasons: ["snap the throttle and read the top: a loose brick swings shut only then"],
    };
  if (toSi(snap) < toSi(raised))
    return {
      ...base,
      outcome: "unsure",
      headline: "Within limits; the snap was not caught at its top",
      reasons: ["its top is above the held reading: snap again and read the highest"],
    };
  if (shootsUp(snap, raised, limits))
    return {
      ...base,
      outcome: "unsure",
      headline: "Within limits while held, and it shoots up in a snap",
      reasons: [
        "what is loose inside swings shut: tap catalyst and silencer cold, look in with a borescope, read again without it",
      ],
    };
  return {
    ...base,
    outcome: "pass",
    headline: "The exhaust is not restricted",
    reasons: ["idle and raised speed stay within limits, and a snap does not shoot up"],
    observation: "back-normal",
  };
}

const shootsUp = (snap: Quantity, raised: Quantity, { backRaised }: Pick<CheckContext["limits"], "backRaised">) =>
  toSi(snap) > Math.max(SNAP_OVER_HELD * toSi(raised), backRaised.value);
