import { inSentence } from "../../sentence";
import { formatNumber, formatQuantity, fromSi, toSi } from "../../units";
import { EVAP_ZONES, entryZone, type Reach, reachOf } from "../../vehicle";
import { type CheckContext, jointName, type Measure, type Verdict, voidVerdict, type ZoneKnowledge } from "../check";
import { fuelLevelDoubt, gasSpace, holeMeasure, setupTrap } from "../evap-fields";
import { machineTrap, names, readSmoke, type SmokeReading, smokeMeasures } from "../smoke";
import type { CapOff, EvapSmokeRun } from "./record";

/** What the machine is set to, Pa gauge: its regulated output where it was regulated. */
const setPressure = (run: EvapSmokeRun) => toSi(run.regulated ?? run.machine.ratedPressure);

/** Flow, pressure and hole of a run, with the gas space its fuel level leaves. */
export function readEvapSmoke(run: EvapSmokeRun, context: Pick<CheckContext, "layout" | "vehicle">): SmokeReading {
  const reach = reachOf(context.layout, run);
  return readSmoke(run, { ...reach, volume: gasSpace(context, run).volume });
}

function trapOf(run: EvapSmokeRun, reach: Reach, reading: SmokeReading, context: CheckContext): string | undefined {
  const { limits, layout } = context;
  const ceiling = limits.evapCeiling;
  const unit = run.units.pressure;
  const limit = `${formatQuantity(fromSi(ceiling.value, unit, "gauge"))} (${ceiling.source})`;
  if (setPressure(run) > ceiling.value * 1.001) {
    return `the machine was not shown regulated below the EVAP ceiling of ${limit}: regulate it and prove that with the hose clamped`;
  }
  if (run.proof && toSi(run.proof.pressure) > ceiling.value * 1.001)
    return `the clamped hose came up above the EVAP ceiling of ${limit}`;
  const trap = machineTrap(run, reading, context, setPressure(run)) ?? setupTrap(run, run.endedAt, (id) => jointName(layout, id));
  if (trap) return trap;
  const highest = Math.max(...reading.pressures);
  if (highest > ceiling.value * 1.05) {
    return `the system was put under ${formatQuantity(fromSi(highest, unit, "gauge"))}, above its ceiling of ${limit}: let it down, look at valves and seals`;
  }
  const [openEnd] = reach.openEnds;
  if (run.seen.length === 0 && openEnd) return `${openEnd.name} was left open: the fill escaped there. Seal it and run again`;
  if (run.seen.length === 0 && run.draughtOrGlare) return "draught or bright daylight: smoke could not have been seen";
  return undefined;
}

/** Share of the ball's fall above which a cap-off has taken the whole flow away, and below which it changed nothing. */
const RECOVERED = 0.8;
const UNCHANGED = 0.2;

export type CapOffReading = "blank-weeps" | "here" | "partly" | "elsewhere";

/** What capping a joint off says: the better side counts; a blank that was not proved says nothing. */
export function readCapOff(capOff: CapOff): CapOffReading {
  if (!capOff.blankProved) return "blank-weeps";
  const left = Math.min(capOff.hoseSide ?? capOff.before, capOff.portSide ?? capOff.before);
  const fall = capOff.before > 0 ? (capOff.before - left) / capOff.before : 0;
  return fall >= RECOVERED ? "here" : fall <= UNCHANGED ? "elsewhere" : "partly";
}

function capOffWords(capOff: CapOff, name: string, unit: string): string {
  const side = (value: number | undefined, which: string) =>
    value === undefined ? [] : [`${which} side shut ${formatNumber(value, 2)}`];
  const seen = `${name}: ball ${formatNumber(capOff.before, 2)}, ${[...side(capOff.hoseSide, "hose"), ...side(capOff.portSide, "port")].join(", ") || "neither side shut"} ${unit}`;
  switch (readCapOff(capOff)) {
    case "blank-weeps":
      return `${seen}. The blank was not proved: it may weep itself, so this says nothing`;
    case "here":
      return `${seen}. The flow is gone: the leak lies beyond it`;
    case "partly":
      return `${seen}. A part of the flow stays: a second leak, or the blank weeps`;
    case "elsewhere":
      return `${seen}. Nothing changed: it is not there`;
  }
}

/** Judges an EVAP smoke run: traps, smoke seen, an inside path, then tight as far as smoke was shown and the size asks. */
export function judgeEvapSmoke(run: EvapSmokeRun, context: CheckContext): Verdict {
  const reach = reachOf(context.layout, run);
  const verdict = judgeRun(run, reach, context);
  if (verdict.outcome === "void") return verdict;
  const shown = shownZones(run, context);
  const tested = reach.tested.filter((j) => shown.has(j.from) || shown.has(j.to)).map((j) => j.id);
  return { ...verdict, tested: verdict.tested ?? tested };
}

function shownZones(run: EvapSmokeRun, { layout }: Pick<CheckContext, "layout">): Set<string> {
  const entry = layout.joints.find((j) => j.id === run.entry);
  return new Set<string>([...(entry ? [entryZone(entry)] : []), ...run.arrivals.map((a) => a.zone)]);
}

function judgeRun(run: EvapSmokeRun, reach: Reach, context: CheckContext): Verdict {
  const { layout } = context;
  const reading = readEvapSmoke(run, context);
  const trap = trapOf(run, reach, reading, context);
  if (trap) return voidVerdict("This run proves nothing", trap);
  // A ball at the bottom still leaves a size that its scale cannot tell from none; one that hunts has no size yet.
  const hole = reading.flow?.settled ? reading.hole : undefined;
  const { required } = run;
  const measures: Measure[] = [
    ...smokeMeasures(run, reading).filter((m) => !m.name.startsWith("All openings")),
    ...(hole ? [holeMeasure(hole, required)] : []),
  ];
  const shown = shownZones(run, context);
  const zoneName = (id: string) => inSentence(layout.zones.find((z) => z.id === id)?.name ?? id);
  const hidden = `${jointName(layout, run.entry)} was hidden by the adapter: untested until re-checked`;
  const capOffs = run.capOffs.map((c) => capOffWords(c, jointName(layout, c.joint), run.units.flow));
  const size = hole ? `${formatNumber(1000 * hole.diameter, 2)} mm` : undefined;

  if (run.seen.length > 0) {
    const places = [...new Set(run.seen.map((s) => s.joint))];
    const leaking = new Map(places.map((id) => [layout.joints.find((j) => j.id === id)?.from, id]));
    const small = hole && required && hole.high < toSi(required.size);
    return {
      outcome: "fail",
      headline: `Smoke at ${names(places, layout)}${size ? `: all leaks together ${size}` : ""}`,
      measures,
      reasons: [
        ...capOffs,
        ...(small
          ? ["smaller than the monitor must catch: a leak all the same, and it may not be the one that set the code"]
          : []),
        ...(run.capOffs.length === 0
          ? ["cap it off on the hose side and on the port side and see the ball fall: that confirms, or shows a second leak"]
          : []),
        hidden,
      ],
      observation: `smoke-at:${places[0]}`,
      zones: layout.zones.flatMap((z): ZoneKnowledge[] => {
        const at = leaking.get(z.id);
        if (at) return [{ zone: z.id, state: "leaking", joint: at, why: `smoke seen at ${names([at], layout)}` }];
        return shown.has(z.id) ? [{ zone: z.id, state: "reached", why: "smoke reached it while another joint leaked" }] : [];
      }),
    };
  }
  if (!run.noSmokeOutside) {
    return {
      outcome: "unsure",
      headline: "Settled, but nobody has looked yet",
      measures,
      reasons: ["look along every joint with a lamp, then mark smoke or say there is none", ...capOffs],
      zones: [],
    };
  }
  if (hole && required && hole.low >= toSi(required.size)) {
    const here = run.capOffs.find((c) => readCapOff(c) === "here")?.joint;
    return {
      outcome: "fail",
      headline: `Passes the flow of a ${size} hole with no smoke outside`,
      measures,
      reasons: [
        ...capOffs,
        ...(here
          ? []
          : [
              "an inside path (purge valve into the manifold, vent not shut), a blank that weeps, or a place nobody has looked at: cap off one by one",
            ]),
        hidden,
      ],
      observation: here ? "pinch-recovers" : "smoke-inside-path",
      ...(here ? { tested: [here] } : {}),
      zones: [],
    };
  }
  const doubts = [
    run.zeroed ? undefined : "gauge and ball were not at zero before the run: zero them and repeat",
    required
      ? undefined
      : "nobody says which leak must be caught: read the code's own criteria, or ask the maker. This is a size only",
    fuelLevelDoubt(run, context),
    hole ? undefined : "the ball has not settled at a pressure that a size can be told from",
    hole && required && hole.high >= toSi(required.size)
      ? `what the ball cannot tell from none is ${formatNumber(1000 * hole.high, 2)} mm, and ${formatNumber(1000 * toSi(required.size), 2)} mm must be caught: shut off and time the decay`
      : undefined,
    context.house.verdictBy === "decay"
      ? "this shop's verdict on a small leak is by decay: shut off and time the fall"
      : undefined,
  ].filter((d) => d !== undefined);
  if (doubts.length > 0) {
    return {
      outcome: "unsure",
      headline: size ? `No smoke outside; the ball settles like a ${size} hole: not sure yet` : "No smoke outside: not sure yet",
      measures,
      reasons: [...doubts, ...capOffs],
      zones: [],
    };
  }
  // The vent hose stands open to the air when nobody tests: only where smoke was shown in it is anything said of it.
  const zones = layout.zones
    .filter((z) => EVAP_ZONES.includes(z.id) && (z.id !== "vent-hose" || shown.has(z.id)))
    .map((z): ZoneKnowledge => {
      if (shown.has(z.id) && reach.zones.includes(z.id))
        return { zone: z.id, state: "tight", why: "smoke was there and none came out" };
      const by = reach.stopped.find((s) => s.zone === z.id)?.by.name;
      return {
        zone: z.id,
        state: "not-reached",
        why: by ? `smoke from here is stopped at ${inSentence(by)}` : "arrival of smoke was not shown",
      };
    });
  const untested = zones.filter((z) => z.state === "not-reached");
  return {
    outcome: "pass",
    headline:
      untested.length > 0
        ? `Tight as far as it reached; ${untested.map((z) => zoneName(z.zone)).join(", ")} untested`
        : "Tight: smoke everywhere inside, none outside",
    measures,
    reasons: [...untested.map((z) => `${zoneName(z.zone)} untested: ${z.why}`), hidden, ...capOffs],
    observation: "smoke-none-outside",
    zones,
  };
}
