import { R_AIR } from "../../gas/air";
import { areaByGas, type DecayResult, type DecayRun, fitDecay } from "../../gas/decay";
import { orificeFlow } from "../../gas/orifice";
import { stretchEdges, stretchMeans } from "../../maths/thin";
import { inSentence } from "../../sentence";
import { formatNumber, formatQuantity, fromSi, toSi, UNITS } from "../../units";
import { reachOf } from "../../vehicle";
import type { CheckContext } from "../context";
import { fuelLevelDoubt, gasSpace, heldZones, holeMeasure, setupTrap, temperatureDoubt } from "../evap-fields";
import { instrumentDoubt } from "../instrument";
import { jointName, type Measure, type Verdict, voidVerdict, WITHIN } from "../verdict";
import type { DecayRecord } from "./fields";
import type { Seen } from "./rows";

/** Share of the size to be caught from which a certain leak is called one. */
const NEAR = 0.5;

/** Samples in SI: s since shut-off, Pa gauge. */
const runOf = (all: DecayRecord["samples"], { unit, reference }: DecayRecord): DecayRun => {
  const samples = thinned(all, reference ? MOST_FITTED / 2 : MOST_FITTED);
  return { times: samples.map((s) => s[0]), pressures: samples.map((s) => s[1] * UNITS[unit].scale) };
};

/** The decay of a record fitted (SI); throws RangeError for samples that no decay can be read from. */
export function readDecay(record: DecayRecord, context: Pick<CheckContext, "layout" | "vehicle">): DecayResult {
  const space = record.volume ? { volume: toSi(record.volume), sd: 0 } : gasSpace(context, record);
  const { reference, required, held, gas } = record;
  return fitDecay({
    ...runOf(record.samples, record),
    volume: space.volume,
    ...(record.volume ? {} : { volumeSd: space.sd / space.volume, yields: true }),
    ambient: toSi(record.ambient),
    temperature: toSi(record.temperature),
    ...(held === undefined ? {} : { held }),
    ...(gas ? { gas } : {}),
    ...(required ? { required: toSi(required.size) } : {}),
    ...(reference ? { reference: { diameter: toSi(reference.diameter), ...runOf(reference.samples, record) } } : {}),
  });
}

/** Pressure that the size to be caught would take out of this gas space during the run, Pa: what the gauge must show. */
function fallToSee(record: DecayRecord, context: CheckContext): number | undefined {
  if (!record.required) return undefined;
  const run = runOf(record.samples, record);
  const ambient = toSi(record.ambient);
  const start = run.pressures[0] as number;
  const { volume } = record.volume ? { volume: toSi(record.volume) } : gasSpace(context, record);
  const temperature = toSi(record.temperature);
  const { massFlow } = orificeFlow({
    upstream: ambient + start,
    downstream: ambient,
    temperature,
    diameter: toSi(record.required.size),
  });
  const seconds = (run.times.at(-1) as number) - (run.times[0] as number);
  // A heavier gas takes as much less out.
  const slower = areaByGas(record.gas ? { gas: record.gas } : {}).most;
  return Math.min(start, (massFlow * R_AIR * temperature * seconds) / volume / slower);
}

/** Share of the start that is left when a system has run empty, and how many readings make a decay. */
const EMPTY = 0.1;
const READINGS = 4;
/** s within which an empty system has a gross leak. */
const AT_ONCE = 20;

/** s after which a system had run empty before a decay could be read from it; undefined where it had not. */
function grossLoss({ samples }: DecayRecord): number | undefined {
  const [first] = samples;
  if (!first || !(first[1] > 0)) return undefined;
  const at = samples.findIndex((s) => s[1] < EMPTY * first[1]);
  const seconds = at > 0 && at < READINGS ? (samples[at] as readonly [number, number])[0] - first[0] : Number.POSITIVE_INFINITY;
  return seconds <= AT_ONCE ? seconds : undefined;
}

/**
 * Most readings that are fitted, of both runs where a reference hole was opened: more are thinned to the means of equal
 * stretches, of which each is one reading.
 */
const MOST_FITTED = 60;

function thinned(samples: DecayRecord["samples"], most: number): DecayRecord["samples"] {
  if (samples.length <= most) return samples;
  const [first, ...rest] = samples as [readonly [number, number], ...(readonly [number, number])[]];
  const edges = stretchEdges(rest.length, most - 1);
  const column = (k: 0 | 1) =>
    stretchMeans(
      rest.map((s) => s[k]),
      edges,
    );
  const [times, pressures] = [column(0), column(1)];
  // The first reading stays as it is: everything is counted from it.
  return [first, ...times.map((t, i): [number, number] => [t, pressures[i] as number])];
}

/** How fast a shut tank that nobody pushed rose, Pa/s: fuel that goes on evaporating; undefined where it was not watched. */
const vapourRate = ({ vapourRise, unit }: DecayRecord): number | undefined =>
  vapourRise && ((vapourRise.end - vapourRise.start) * UNITS[unit].scale) / Math.max(1, vapourRise.seconds);

/** Share of the fall to be seen that evaporating fuel may hide. */
const HIDDEN_BY_VAPOUR = 0.2;

/** Judges a decay of the EVAP system against the size to be caught: by volume, or by a reference hole where one was opened. */
export function judgeDecay(typed: DecayRecord, context: CheckContext): Verdict<Seen> {
  const short = shortSpace(typed, context);
  if (short === undefined) return judgeBySpace(typed, context);
  const { volume: _, ...record } = typed;
  const verdict = judgeBySpace(record, context);
  return verdict.outcome === "void" ? verdict : { ...verdict, reasons: [...verdict.reasons, short] };
}

/** Why a gas space as typed is not taken: smaller than the system has by its tank and fuel, every hole comes out too small. */
function shortSpace(record: DecayRecord, context: CheckContext): string | undefined {
  if (!record.volume || !context.vehicle.evap || !reachOf(context.layout, record).zones.includes("tank")) return undefined;
  const { volume, sd } = gasSpace(context, record);
  if (toSi(record.volume) >= volume - 2 * sd) return undefined;
  return `compared with the ${formatQuantity(fromSi(volume, "L"))} that this system has at ${formatNumber(record.fuelLevel, 0)} % fuel, not the ${formatQuantity(record.volume)} it was recorded with: in a smaller space a hole looks smaller`;
}

function judgeBySpace(record: DecayRecord, context: CheckContext): Verdict<Seen> {
  const trap = setupTrap(record, record.samples.at(-1)?.[0] ?? 0, context.layout);
  if (trap) return voidVerdict("This decay proves nothing", trap);
  const [open] = reachOf(context.layout, record).openEnds;
  if (open) return voidVerdict("This decay proves nothing", `${open.name} was left open: shut it, and begin anew`);
  const start = (record.samples[0]?.[1] ?? 0) * UNITS[record.unit].scale;
  const { evapCeiling } = context.limits;
  if (start > evapCeiling.value) {
    return voidVerdict(
      "This decay proves nothing",
      `it began above the ceiling of ${formatNumber(evapCeiling.value / UNITS[record.unit].scale, 1)} ${record.unit} gauge (${evapCeiling.source}): let it down and look at valves and seals before going on`,
    );
  }
  const gross = grossLoss(record);
  if (gross !== undefined) {
    return {
      outcome: "fail",
      headline: `Gone within ${formatNumber(gross, 0)} s: a gross leak, too fast to size`,
      measures: [],
      reasons: ["vent not shut, cap off, or a hole of millimetres: smoke at full flow finds it at once"],
      observation: "decay-leaks",
      tested: reachOf(context.layout, record).tested.map((j) => j.id),
      zones: [],
    };
  }
  let fit: DecayResult;
  try {
    fit = readDecay(record, context);
  } catch (error) {
    return voidVerdict("This decay cannot be read", error instanceof Error ? error.message : String(error));
  }
  const by = record.reference ? "by the reference hole" : "by volume";
  const measures: Measure[] = [
    holeMeasure(fit, record.required, `Leak as one sharp-edged hole (Cd 0.61), ${by}`),
    { name: "Smallest hole this test could have seen", value: fromSi(fit.smallestVisible, "mm") },
  ];
  const reach = reachOf(context.layout, record);
  const tested = reach.tested.map((j) => j.id);
  const size = `${formatNumber(1000 * fit.diameter, 2)} mm`;
  if (fit.outcome === "void") {
    return { outcome: "void", headline: "This decay proves nothing", measures: [], reasons: fit.reasons, zones: [] };
  }
  if (fit.outcome === "fail") {
    return {
      outcome: "fail",
      headline: `Loses pressure like a ${size} hole`,
      measures,
      reasons: [...fit.reasons, "where it is, smoke at low flow, a lamp and the cap-off show: decay only says that there is one"],
      observation: "decay-leaks",
      tested,
      zones: [],
    };
  }
  const required = record.required && toSi(record.required.size);
  if (fit.outcome === "pass" && required && fit.low >= NEAR * required) {
    return {
      outcome: "fail",
      headline: `Leaks like a ${size} hole: smaller than must be caught, and a leak all the same`,
      measures,
      reasons: [
        "more than half of what the monitor must catch: with a fuller tank, in the cold or on the road it may see it",
        "the ball hardly shows it: smoke at low flow, a lamp, and the joints capped off one by one",
      ],
      observation: "decay-leaks",
      tested,
      zones: [],
    };
  }
  const fall = fallToSee(record, context);
  const rate = vapourRate(record);
  const seconds = (record.samples.at(-1)?.[0] ?? 0) - (record.samples[0]?.[0] ?? 0);
  const doubts = [
    ...(fit.outcome === "unsure" ? fit.reasons : []),
    ...(rate !== undefined && fall !== undefined && Math.abs(rate) * seconds > HIDDEN_BY_VAPOUR * fall
      ? [
          "shut and not pressurised, its pressure moved before the run: evaporating or cooling fuel hides as much as a leak takes. Let it soak",
        ]
      : []),
    ...[
      fuelLevelDoubt(record, context),
      temperatureDoubt(record, context),
      fall === undefined ? undefined : instrumentDoubt(record.instrument, fall, context.limits),
    ],
  ].filter((d) => d !== undefined);
  if (doubts.length > 0) {
    return { outcome: "unsure", headline: `Falls like a ${size} hole: not sure yet`, measures, reasons: doubts, zones: [] };
  }
  const zones = heldZones(context, record, `held its pressure, ${by}`);
  const nameOf = (id: string) => inSentence(context.layout.zones.find((z) => z.id === id)?.name ?? id);
  const left = zones.filter((z) => z.state === "not-reached");
  const told = fit.low > 0;
  const asked = required === undefined ? "" : `, below the ${formatNumber(1000 * required, 2)} mm asked`;
  return {
    outcome: "pass",
    ...(told ? { word: WITHIN } : {}),
    headline: told
      ? `Leaks like a ${size} hole${asked}${left.length > 0 ? `; ${left.map((z) => nameOf(z.zone)).join(", ")} untested` : ""}`
      : left.length > 0
        ? `Holds its pressure as far as it reached; ${left.map((z) => nameOf(z.zone)).join(", ")} untested`
        : "Holds its pressure",
    measures,
    reasons: [
      ...fit.reasons,
      `${formatNumber(Math.abs(fit.driftKelvin), 1)} °C of drift allowed for`,
      ...left.map((z) => `${nameOf(z.zone)} untested: ${z.why}`),
      `${jointName(context.layout, record.entry)} was hidden by the adapter: untested until re-checked`,
    ],
    observation: "decay-tight",
    tested,
    zones,
  };
}
