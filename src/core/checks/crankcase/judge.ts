import { formatNumber, formatQuantity, fromSi, toSi } from "../../units";
import type { CheckContext } from "../context";
import { instrumentDoubt } from "../instrument";
import { type Measure, type Verdict, voidVerdict } from "../verdict";
import type { CrankcaseReading } from "./fields";
import type { Seen } from "./rows";

/** Without the maker's band, more suction than this is more than any breather system makes at idle, Pa. */
const BEYOND_ANY = -2500;

/** So far above its target an engine does not idle, 1/min. */
const NO_IDLE = 700;
/** Speed at which it is read once more, 1/min. */
const RAISED = 2500;

/** Judges crankcase pressure against the engine's own band; without one only its sign, and suction beyond any engine's. */
export function judgeCrankcase(reading: CrankcaseReading, context: CheckContext): Verdict<Seen> {
  const { vehicle, limits } = context;
  const lost = (trap: string) => voidVerdict("This reading proves nothing", trap);
  if (!reading.warm) return lost("the engine was cold: blow-by and breather flow are not what they are warm");
  if (!reading.sealed) return lost("oil cap or dipstick tube was open: the crankcase was vented while it was read");
  if (reading.rpm !== undefined && reading.rpm > limits.idleSpeed.value + NO_IDLE)
    return lost(
      `${formatNumber(reading.rpm, 0)} rpm is no idle: the band is one of the idling engine. Let it idle, and read it again`,
    );
  const band = vehicle.crankcaseBand;
  const idle = toSi(reading.idle);
  const unit = reading.idle.unit;
  const show = (pa: number) => formatQuantity(fromSi(pa, unit, "gauge"));
  const measures: Measure[] = [
    {
      name: "Crankcase at idle",
      value: { ...reading.idle, kind: "gauge" },
      ...(band
        ? { limit: `${show(toSi(band.low))} to ${show(toSi(band.high))}`, limitSource: "the engine's own band" }
        : { limit: "no band known for this engine: only the sign counts", limitSource: "shop default" }),
    },
    ...(reading.raised ? [{ name: "Crankcase at raised speed", value: { ...reading.raised, kind: "gauge" as const } }] : []),
  ];
  const base = { measures, zones: [] };
  const width = band ? toSi(band.high) - toSi(band.low) : Math.max(100, Math.abs(idle));
  const doubt = instrumentDoubt(reading.instrument, width, limits);
  if (doubt) return { ...base, outcome: "unsure", headline: "Manometer not usable: zero or division", reasons: [doubt] };
  const low = band ? toSi(band.low) : BEYOND_ANY;
  if (idle < low) {
    return {
      ...base,
      outcome: "fail",
      headline: `Too much suction: ${show(idle)}`,
      reasons: [
        "the PCV diaphragm or valve passes manifold vacuum into the crankcase",
        "it is unmetered air only where a seal or the diaphragm lets outside air in: listen at its vent, cover it with a finger",
      ],
      observation: "crankcase-suction",
      tested: ["pcv-diaphragm", "pcv-valve"],
    };
  }
  const most = band ? toSi(band.high) : 0;
  if (reading.raised && toSi(reading.raised) < BEYOND_ANY)
    return {
      ...base,
      outcome: "fail",
      headline: `Too much suction at speed: ${show(toSi(reading.raised))}`,
      reasons: ["no breather system makes so much: the PCV diaphragm passes, or the gauge does not stand at zero"],
      observation: "crankcase-suction",
      tested: ["pcv-diaphragm", "pcv-valve"],
    };
  const raised = reading.raised && toSi(reading.raised);
  if (idle <= most && raised !== undefined && raised > most)
    return {
      ...base,
      outcome: "fail",
      headline: `Positive at speed: ${show(raised)} at ${RAISED} rpm`,
      reasons: ["good at idle, and it grows with speed: blow-by past rings, or a breather that cannot carry it away"],
      observation: "crankcase-positive",
    };
  if (idle > most) {
    const grows = reading.raised && toSi(reading.raised) > idle;
    return {
      ...base,
      outcome: "fail",
      headline: idle > 0 ? `Positive: ${show(idle)}` : `Too little suction: ${show(idle)}`,
      reasons: [
        grows
          ? "it grows with speed: blow-by past rings, or a breather that cannot carry it away"
          : "blocked breather or blow-by: clear the breather first, it is the cheap thing",
      ],
      observation: "crankcase-positive",
    };
  }
  if (!band) {
    return {
      ...base,
      outcome: "unsure",
      headline: `Suction, as it should be: ${show(idle)}`,
      reasons: ["without the engine's own band only the sign is judged: enter the maker's band with the vehicle"],
      observation: "crankcase-sign-right",
    };
  }
  return {
    ...base,
    outcome: "pass",
    headline: `Within the engine's own band: ${show(idle)}`,
    reasons: ["breather and PCV valve do their work"],
    observation: "crankcase-normal",
    tested: ["pcv-diaphragm", "pcv-valve"],
  };
}
