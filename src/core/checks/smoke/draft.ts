import type { Machine } from "../../shop/settings";
import { parseTrusted, type Quantity } from "../../units";
import type { ZoneId } from "../../vehicle";
import type { SmokeRun } from "./fields";

/** Fields that a draft holds just as its record will. */
type AsRecorded = Pick<
  SmokeRun,
  | "entry"
  | "into"
  | "blocked"
  | "heldOpen"
  | "zeroed"
  | "samples"
  | "noSmokeOutside"
  | "cameUndone"
  | "touchedBefore"
  | "adapterLeaks"
  | "draughtOrGlare"
  | "source"
>;

/** A smoke run on its way, from the first switch to the record. Times are ms since 1970, what is typed is text. */
export interface SmokeDraft extends Omit<AsRecorded, "zeroed"> {
  /** Whether gauge and ball stood at zero; not said yet where left out */
  readonly zeroed?: boolean | undefined;
  readonly phase: "setup" | "proof" | "run";
  readonly machineId: string;
  readonly crank: string;
  readonly heaterOn: number | null;
  readonly proofPressure: string;
  /** ISO time of a proof that was not taken with this run: earlier in the session, or after it */
  readonly provedAt: string;
  readonly ballAtBottom?: boolean | undefined;
  readonly smokeSeen?: boolean | undefined;
  readonly proved: boolean;
  readonly startedAt: number | null;
  readonly endedAt: number | null;
  readonly flow: number;
  readonly pressure: number;
  readonly arrivals: readonly { readonly zone: ZoneId; readonly at: number }[];
  readonly seen: readonly { readonly joint: string; readonly at: number }[];
}

export const EMPTY_SMOKE: SmokeDraft = {
  phase: "setup",
  machineId: "",
  entry: "",
  blocked: [],
  heldOpen: [],
  crank: "",
  heaterOn: null,
  proofPressure: "",
  provedAt: "",
  proved: false,
  startedAt: null,
  endedAt: null,
  flow: 0,
  pressure: 0,
  samples: [],
  arrivals: [],
  seen: [],
  noSmokeOutside: false,
  cameUndone: [],
  touchedBefore: [],
};

/** A run set up as one was that must be shown good: the same machine where the shop has it, the same way in, plugs and crank. */
export const setUpAs = (
  { machine, entry, into, blocked, heldOpen, crank = "" }: SmokeRun,
  machines: readonly Pick<Machine, "id" | "name">[],
): Pick<SmokeDraft, "machineId" | "entry" | "into" | "blocked" | "heldOpen" | "crank"> => ({
  machineId: machines.find((m) => m.name === machine.name)?.id ?? "",
  entry,
  ...(into ? { into } : {}),
  blocked,
  heldOpen,
  crank,
});

/** Two readings closer than this are one that was still moving, s. */
const ONE_READING = 0.45;

/** The run with the ball and the gauge read now, in the machine's units. @param now ms since 1970. */
export function sampled<Draft extends SmokeDraft>(draft: Draft, flow: number, pressure: number, now: number): Draft {
  const t = sinceStart(draft, now);
  return { ...draft, flow, pressure, samples: [...draft.samples.filter((s) => t - s[0] > ONE_READING), [t, flow, pressure]] };
}

/** The run with smoke seen at a joint. @param now ms since 1970. */
export const sighted = <Draft extends SmokeDraft>(draft: Draft, joint: string, now: number): Draft => ({
  ...draft,
  seen: [...draft.seen.filter((s) => s.joint !== joint), { joint, at: now }],
  noSmokeOutside: false,
});

/** A whole run as a draft that has ended, to be looked over and recorded. @param startedAt ms since 1970. */
export function draftOfRun<Draft extends SmokeDraft>(draft: Draft, run: SmokeRun, startedAt: number): Draft {
  const moment = (seconds: number) => startedAt + seconds * 1000;
  const [, flow = 0, pressure = 0] = run.samples.at(-1) ?? [];
  return {
    ...draft,
    phase: "run",
    heaterOn: moment(run.heaterOnAt),
    proofPressure: run.proof?.pressure ? `${run.proof.pressure.value} ${run.proof.pressure.unit}` : "",
    provedAt: "",
    ballAtBottom: run.proof?.ballAtBottom,
    smokeSeen: run.proof?.smokeSeen,
    proved: run.proof !== undefined,
    zeroed: run.zeroed,
    startedAt,
    endedAt: moment(run.endedAt),
    flow,
    pressure,
    samples: run.samples,
    arrivals: run.arrivals.map(({ zone, at }) => ({ zone, at: moment(at) })),
    seen: run.seen.map(({ joint, at }) => ({ joint, at: moment(at) })),
    noSmokeOutside: run.noSmokeOutside,
    draughtOrGlare: run.draughtOrGlare,
    source: run.source,
  };
}

/** Time of a run, s to a tenth. */
export const sinceStart = ({ startedAt }: Pick<SmokeDraft, "startedAt">, now: number): number =>
  Math.round((now - (startedAt ?? now)) / 100) / 10;

/** Gauge pressure with the hose clamped; undefined while that cannot be trusted. */
export const proofRead = ({ proofPressure }: Pick<SmokeDraft, "proofPressure">, machine: Machine): Quantity | undefined =>
  parseTrusted(proofPressure, "smokePressure", machine.ratedPressure.unit);

/**
 * The record that a run makes as it stands.
 * @param conditions of the bay, read before it; @param end ms since 1970.
 * @returns undefined while it has not begun, or nobody said under what conditions, or whether gauge and ball stood at zero.
 */
export function smokeRunOf(
  draft: SmokeDraft,
  machine: Machine,
  conditions: { readonly ambient: Quantity; readonly bayTemperature: Quantity } | undefined,
  end: number,
): SmokeRun | undefined {
  const { zeroed, ballAtBottom, smokeSeen } = draft;
  if (!conditions || draft.startedAt === null || zeroed === undefined) return undefined;
  const seconds = (ms: number) => sinceStart(draft, ms);
  const plain = machine.kind === "plain";
  const pressure = plain ? undefined : proofRead(draft, machine);
  return {
    machine: {
      name: machine.name,
      ratedPressure: machine.ratedPressure,
      maxFlow: machine.maxFlow,
      autoOff: machine.autoOff,
      ...(machine.division ? { division: machine.division } : {}),
      ...(plain ? { plain: true as const } : {}),
      ...(machine.calibration ? { calibration: machine.calibration } : {}),
    },
    ...(draft.proved && smokeSeen !== undefined && (plain || (pressure && ballAtBottom !== undefined))
      ? {
          proof: {
            ...(pressure ? { pressure } : {}),
            // A plain machine has no ball.
            ballAtBottom: ballAtBottom ?? false,
            smokeSeen,
            ...(draft.provedAt ? { takenAt: draft.provedAt } : {}),
          },
        }
      : {}),
    entry: draft.entry,
    ...(draft.into ? { into: draft.into } : {}),
    blocked: draft.blocked,
    heldOpen: draft.heldOpen,
    ...(draft.crank.trim() ? { crank: draft.crank.trim() } : {}),
    heaterOnAt: seconds(draft.heaterOn ?? draft.startedAt),
    units: { flow: machine.maxFlow.unit, pressure: machine.ratedPressure.unit },
    samples: draft.samples,
    arrivals: draft.arrivals.map((a) => ({ zone: a.zone, at: seconds(a.at) })),
    seen: draft.seen.map((s) => ({ joint: s.joint, at: seconds(s.at) })),
    noSmokeOutside: draft.noSmokeOutside,
    cameUndone: draft.cameUndone,
    touchedBefore: draft.touchedBefore,
    ...(draft.adapterLeaks === undefined ? {} : { adapterLeaks: draft.adapterLeaks }),
    ...(draft.draughtOrGlare === undefined ? {} : { draughtOrGlare: draft.draughtOrGlare }),
    zeroed,
    ambient: conditions.ambient,
    temperature: conditions.bayTemperature,
    endedAt: seconds(end),
    ...(draft.source ? { source: draft.source } : {}),
  };
}

/** Whether the proof was taken before the hose went on. */
export const provedEarlier = ({ proved, provedAt, startedAt }: SmokeDraft): boolean =>
  proved && (provedAt === "" || Date.parse(provedAt) < (startedAt ?? 0));
