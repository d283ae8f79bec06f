import { formatNumber } from "../../units";
import type { CheckContext } from "../context";
import type { Plan } from "../contract";
import { fittedWith, refusing } from "../unfit";

export const unfit = fittedWith("particulate-filter", "No particulate filter is entered for this vehicle.");

const hPa = (pa: number) => `${formatNumber(pa / 100, 0)} hPa`;

/** Pressure difference at three states, and what comes before any cleaning. */
export function planFilter(context: CheckContext): Plan {
  const { limits } = context;
  const { filterIdle, filterGood, filterMost } = limits;
  return {
    steps: [
      {
        text: "What loaded it comes first: boost leak, EGR, injection, short trips. Cleaned alone, it loads again.",
      },
      { text: "Both pressure pipes blown free towards the filter, sensor off meanwhile; right way round, no split." },
      { text: `Key on, engine standing: within ± ${hPa(filterIdle.value / 5)}, or the sensor comes first.` },
      {
        text: `Engine warm, at idle: at most ${hPa(filterIdle.value)}. A display of whole kPa cannot tell: then the raised speed decides.`,
        caution: "running-engine",
      },
      {
        text: `Hold 3000 rpm without load: good up to ${hPa(filterGood.value)}, at most ${hPa(filterMost.value)} (${filterMost.source}). Write MAF and temperature down: they make readings at other speeds comparable.`,
        caution: "hot-exhaust",
      },
      { text: "1 kPa is 10 hPa and 10 mbar: read the unit beside the number before you type it." },
    ],
    displaces: [],
    cautions: ["running-engine", "hot-exhaust"],
    clocks: [],
    ...refusing(unfit, context),
  };
}
