import { GAMMA } from "../../gas/air";
import { formatNumber, toSi, UNITS } from "../../units";
import type { Layout } from "../../vehicle";
import type { CheckContext } from "../context";
import { leaksSeen, pastPlugs } from "../seen";
import { type Verdict, voidVerdict, type ZoneKnowledge } from "../verdict";
import type { SmokeRun } from "./fields";
import { proofFault } from "./proof";
import type { SmokeReading } from "./reading";
import type { Seen } from "./rows";

/** Share of full flow at which a ball counts as lying at the bottom. */
const BALL_DOWN = 0.03;

/** A trap that spoils a run, and when it closed, s of the run; what was seen before stays seen. */
export interface Trap {
  readonly why: string;
  readonly from?: number;
}

/** Share of the rated pressure and of full flow below which a machine pushes nothing. */
const NO_PRESSURE = 0.08;
const SOME_FLOW = 0.5;
/** A reading above what the machine makes by more than this is none of its own. */
const BEYOND_MACHINE = 1.25;
/** The first reading must be taken as the hose goes on, s: later a shut port looks like a tight circuit. */
const AT_ONCE = 2;

/** Reading that no machine, no run and no physics can have given; undefined where every reading is possible. */
function impossible(run: SmokeRun, reading: SmokeReading, rated: number): string | undefined {
  const maxFlow = toSi(run.machine.maxFlow);
  const top = Math.max(...run.samples.map((s) => s[1])) * UNITS[run.units.flow].scale;
  const outside = [...run.seen, ...run.arrivals].find((e) => e.at < -1 || e.at > run.endedAt + 1);
  if (outside) return "something was noted outside the run's own time";
  const shown = [...run.seen, ...run.arrivals].find((e) => e.at < run.heaterOnAt);
  if (shown) return "smoke was noted before the heater was on: what was seen was not of this run";
  if (run.proof?.pressure && toSi(run.proof.pressure) > BEYOND_PROOF * toSi(run.machine.ratedPressure))
    return "with the hose clamped the gauge showed more than this machine makes: look at gauge, unit and regulator";
  if ((run.samples.at(-1)?.[0] ?? 0) > run.endedAt + 2) return "readings go on after the run had ended";
  if (run.samples.length === 0) return undefined;
  if (!run.machine.calibration && top > BEYOND_MACHINE * maxFlow) return "the ball shows more than this machine can push";
  const most = Math.max(rated, run.proof?.pressure ? toSi(run.proof.pressure) : 0);
  if (Math.max(...reading.pressures) > BEYOND_MACHINE * most) return "the gauge shows more pressure than this machine makes";
  const end = reading.pressures.slice(-Math.max(3, Math.floor(reading.pressures.length / 3)));
  const flows = reading.flows.slice(-end.length);
  const mean = (list: readonly number[]) => list.reduce((a, b) => a + b, 0) / list.length;
  if (end.length >= 3 && mean(end) < NO_PRESSURE * rated && mean(flows) < SOME_FLOW * maxFlow)
    return "neither pressure nor full flow: nothing was being pushed. Look at pump, valve and hose";
  return undefined;
}

/**
 * The first trap of the machine and its run, whatever circuit it fills; undefined when none does.
 * @param rated Pa gauge, what the machine is set to.
 */
export function machineTrap(
  run: SmokeRun,
  reading: SmokeReading,
  { limits, layout }: Pick<CheckContext, "limits" | "layout">,
  rated: number,
): Trap | undefined {
  const because = (why: string, from?: number): Trap => ({ why, ...(from === undefined ? {} : { from }) });
  const { machine } = run;
  const unproved = proofFault(run, rated, limits.machineProof.value);
  if (unproved) return because(unproved);
  const cannot = impossible(run, reading, rated);
  if (cannot) return because(cannot);
  const offAt = run.heaterOnAt + machine.autoOff;
  if (offAt < run.endedAt) {
    return because(
      `heater and pump timed out ${formatNumber(run.endedAt - offAt, 0)} s before the run ended: the ball fell because nothing was being pushed`,
      offAt,
    );
  }
  if (run.cameUndone.length > 0)
    return because(`${names(run.cameUndone, layout)} came undone, dropped out or wept during the run`);
  if (run.touchedBefore.length > 0)
    return because(`${names(run.touchedBefore, layout)} was touched before the check: the evidence is gone`);
  if (run.adapterLeaks) return because("the adapter leaked at its own threads or cone");
  const past = pastPlugs(run);
  if (past.length > 0)
    return because(
      `smoke came past what seals ${names([...new Set(past.map((s) => s.joint))], layout)}: seat it anew and run again`,
      Math.min(...past.map((s) => s.at)),
    );
  if (machine.plain) return undefined;
  const maxFlow = toSi(machine.maxFlow);
  const shut = (i: number) => (reading.flows[i] ?? 0) < BALL_DOWN * maxFlow && (reading.pressures[i] ?? 0) > 0.5 * rated;
  const first = reading.times[0] ?? Number.POSITIVE_INFINITY;
  // A small tight space is full before anybody reads the ball; then smoke at a far end tells it from a port that is not open.
  // Filled so fast the gas keeps its heat, and takes 1/γ of the time.
  const passed = run.arrivals.length > 0 || run.seen.length > 0;
  const full = reading.expectedTime / GAMMA < first && passed;
  if (first <= AT_ONCE && shut(0) && !full)
    return because("the flow fell to zero the moment the hose went on: the port is not open (core not pressed, hose kinked)");
  if (reading.times.length < 3) return because("fewer than three readings were taken: follow the ball until it settles");
  if (first > AT_ONCE && !passed && reading.times.every((_, i) => shut(i))) {
    return because(
      "the first reading came late: a port that was never open looks just like a tight circuit. Read as the hose goes on, or show smoke at a far end",
    );
  }
  if (run.seen.length === 0 && reading.flow && !reading.flow.settled) {
    return because(`still filling: about ${formatNumber(reading.flow.timeLeft, 0)} s were missing until the ball settles`);
  }
  return undefined;
}

/** A machine's regulator lies no further above its rating. */
const BEYOND_PROOF = 1.6;
/** Smoke goes on coming out for this long after the push has ended, s. */
const LINGERS = 5;

/** Every further place that smoke was seen at. */
export const alsoAt = ([_first, ...more]: readonly string[]): Pick<Verdict<Seen>, "also"> =>
  more.length > 0 ? { also: more.map((id): Seen => `smoke-at:${id}`) } : {};

/** The verdict on a run that fell into a trap: void, unless smoke was seen before the trap closed. That stays evidence. */
export function trappedVerdict(run: SmokeRun, trap: Trap, layout: Layout): Verdict<Seen> {
  // Smoke at the entry itself is the adapter's.
  const own = leaksSeen(run, layout).filter((s) => s.joint !== run.entry);
  const seen = own.filter(
    (s) => s.at >= -1 && s.at <= Math.min(run.endedAt + 1, (trap.from ?? Number.POSITIVE_INFINITY) + LINGERS),
  );
  if (seen.length === 0) return voidVerdict("This run proves nothing", trap.why);
  const places = [...new Set(seen.map((s) => s.joint))];
  return {
    outcome: "fail",
    headline: `Smoke at ${names(places, layout)}; the rest of this run proves nothing`,
    measures: [],
    reasons: [trap.why, "what was seen stays seen: cap it off to confirm, then run again for the rest"],
    observation: `smoke-at:${places[0]}`,
    ...alsoAt(places),
    tested: places,
    zones: places.flatMap((id): ZoneKnowledge[] => {
      const joint = layout.joints.find((j) => j.id === id);
      return joint ? [{ zone: joint.from, state: "leaking", joint: id, why: `smoke seen at ${joint.name}` }] : [];
    }),
  };
}

export const names = (ids: readonly string[], layout: Layout) =>
  ids.map((id) => layout.joints.find((j) => j.id === id)?.name ?? id).join(", ");
