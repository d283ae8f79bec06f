"use client";

import { useDeferredValue, useMemo } from "react";
import { judgeCheck, type Plan, type Verdict } from "@/core/checks";
import { requiredOf } from "@/core/checks/evap-fields";
import { type EvapSmokeRun, planEvapSmoke, preferredEntry, readEvapSmoke } from "@/core/checks/evap-smoke";
import { planSmoke, readSmoke, type SmokeReading, type SmokeRun } from "@/core/checks/smoke";
import { requiredLeak } from "@/core/journal";
import { DEFAULT_LIMITS, type Machine } from "@/core/shop/settings";
import { type Quantity, UNITS } from "@/core/units";
import { type Circuit, reachOf, usualSetup, type ZoneId } from "@/core/vehicle";
import { useDraft } from "../../../session/storage";
import { readField } from "../../fields";
import { useJob } from "../../use-job";
import { readNumber } from "../read-number";

/** A smoke run on its way: a draft on the device from the first switch to the record. Times are ms since 1970. */
export interface SmokeDraft {
  phase: "setup" | "proof" | "run";
  machineId: string;
  entry: string;
  into?: ZoneId | undefined;
  blocked: readonly string[];
  heldOpen: readonly string[];
  crank: string;
  heaterOn: number | null;
  proofPressure: string;
  /** ISO time of a proof that was not taken with this run: earlier in the session, or after it */
  provedAt: string;
  ballAtBottom: boolean;
  smokeSeen: boolean;
  proved: boolean;
  zeroed: boolean;
  startedAt: number | null;
  endedAt: number | null;
  flow: number;
  pressure: number;
  samples: [number, number, number][];
  arrivals: { zone: ZoneId; at: number }[];
  seen: { joint: string; at: number }[];
  noSmokeOutside: boolean;
  cameUndone: string[];
  touchedBefore: string[];
  adapterLeaks: boolean;
  draughtOrGlare: boolean;
  /** The vapour system only: how the vent is kept shut, since when it is commanded, and what it is held against */
  vent: "command" | "plug";
  ventAt: number | null;
  fuelLevel: string;
  regulated: string;
  hotTank: boolean;
  capOffs: { joint: string; before: string; hoseSide: string; portSide: string; blankProved: boolean }[];
}

const EMPTY_RUN: SmokeDraft = {
  phase: "setup",
  machineId: "",
  entry: "",
  blocked: [],
  heldOpen: [],
  crank: "",
  heaterOn: null,
  proofPressure: "",
  provedAt: "",
  ballAtBottom: false,
  smokeSeen: false,
  proved: false,
  zeroed: false,
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
  adapterLeaks: false,
  draughtOrGlare: false,
  vent: "command",
  ventAt: null,
  fuelLevel: "",
  regulated: "",
  hotTank: false,
  capOffs: [],
};

/** The kind of check that a run of a circuit is recorded as. */
const KIND = { intake: "smoke", evap: "evap-smoke" } as const;

/** The machine when the shop has described none yet. */
const ANY_MACHINE: Machine = {
  id: "any",
  name: "Smoke machine (not described in Shop)",
  ratedPressure: { value: 13, unit: "inH2O", kind: "gauge" },
  maxFlow: { value: 12, unit: "L/min" },
  autoOff: DEFAULT_LIMITS.smokeAutoOff.value,
  kind: "low-pressure",
  service: [],
};

/** The run's draft with everything worked out from it: machine, reach, record so far, reading. */
export function useSmokeRun(circuit: Circuit, proofPressure: (typed: string, machine: Machine) => Quantity | undefined) {
  const { id, shop, layout, context, state } = useJob();
  const kind = KIND[circuit];
  const leak = requiredLeak(state);
  const best =
    state.next.find((n) => n.check === kind)?.place ?? (circuit === "evap" && context ? preferredEntry(context) : "air-meter");
  const empty = useMemo(() => ({ ...EMPTY_RUN, ...(layout ? usualSetup(layout, best) : {}) }), [layout, best]);
  const [draft, setDraft, clear] = useDraft<SmokeDraft>(`pelota.draft.${id}.${kind}`, empty);
  const machine = shop.machines.find((m) => m.id === draft.machineId) ?? shop.machines[0] ?? ANY_MACHINE;
  const fill = {
    entry: draft.entry,
    ...(draft.into ? { into: draft.into } : {}),
    blocked: draft.blocked,
    heldOpen: draft.heldOpen,
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: the fill is made anew on every render of the same parts
  const reach = useMemo(
    () => (layout ? reachOf(layout, fill) : undefined),
    [layout, draft.entry, draft.into, draft.blocked, draft.heldOpen],
  );
  const units = { flow: machine.maxFlow.unit, pressure: machine.ratedPressure.unit };

  const recordAt = (end: number): SmokeRun | EvapSmokeRun | undefined => {
    const { conditions } = state;
    if (!conditions || draft.startedAt === null) return undefined;
    const seconds = (ms: number) => Math.round((ms - (draft.startedAt as number)) / 100) / 10;
    const fuelLevel = readNumber(draft.fuelLevel);
    if (circuit === "evap" && fuelLevel === undefined) return undefined;
    const regulated = readField(draft.regulated, "ratedPressure", machine.ratedPressure.unit);
    const flow = (typed: string) => readNumber(typed);
    const vapour = {
      vent:
        draft.vent === "plug"
          ? { by: "plug" as const }
          : {
              by: "command" as const,
              at: seconds(draft.ventAt ?? draft.startedAt),
              seconds: context?.limits.outputTime.value ?? DEFAULT_LIMITS.outputTime.value,
            },
      fuelLevel: fuelLevel ?? 0,
      ...(leak ? { required: requiredOf(leak) } : {}),
      ...(regulated ? { regulated } : {}),
      gas: shop.house.evapGas,
      capOffs: draft.capOffs.flatMap((c) => {
        const before = flow(c.before);
        const [hoseSide, portSide] = [flow(c.hoseSide), flow(c.portSide)];
        return before === undefined
          ? []
          : [
              {
                joint: c.joint,
                before,
                ...(hoseSide === undefined ? {} : { hoseSide }),
                ...(portSide === undefined ? {} : { portSide }),
                blankProved: c.blankProved,
              },
            ];
      }),
    };
    const pressure = proofPressure(draft.proofPressure, machine);
    const proved = draft.proved && (machine.kind === "plain" || pressure);
    return {
      machine: {
        name: machine.name,
        ratedPressure: machine.ratedPressure,
        maxFlow: machine.maxFlow,
        autoOff: machine.autoOff,
        ...(machine.division ? { division: machine.division } : {}),
        ...(machine.kind === "plain" ? { plain: true as const } : {}),
        ...(machine.calibration ? { calibration: machine.calibration } : {}),
      },
      ...(proved
        ? {
            proof: {
              ...(machine.kind !== "plain" && pressure ? { pressure } : {}),
              ballAtBottom: draft.ballAtBottom,
              smokeSeen: draft.smokeSeen,
              ...(draft.provedAt ? { takenAt: draft.provedAt } : {}),
            },
          }
        : {}),
      ...fill,
      ...(draft.crank.trim() ? { crank: draft.crank.trim() } : {}),
      heaterOnAt: seconds(draft.heaterOn ?? draft.startedAt),
      units,
      samples: draft.samples,
      arrivals: draft.arrivals.map((a) => ({ zone: a.zone, at: seconds(a.at) })),
      seen: draft.seen.map((s) => ({ joint: s.joint, at: seconds(s.at) })),
      noSmokeOutside: draft.noSmokeOutside,
      cameUndone: draft.cameUndone,
      touchedBefore: draft.touchedBefore,
      adapterLeaks: draft.adapterLeaks,
      draughtOrGlare: draft.draughtOrGlare,
      zeroed: draft.zeroed,
      ambient: conditions.ambient,
      temperature: conditions.bayTemperature,
      endedAt: seconds(end),
      ...(circuit === "evap" ? vapour : {}),
    };
  };
  const record = draft.endedAt === null ? undefined : recordAt(draft.endedAt);
  // The ball follows the hand at once; fit and plot come after it.
  const samples = useDeferredValue(draft.samples);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the reading rests on the samples alone
  const reading = useMemo((): SmokeReading | undefined => {
    const so = draft.startedAt === null ? undefined : recordAt(draft.startedAt);
    if (!so || !reach || !context) return undefined;
    return circuit === "evap"
      ? readEvapSmoke({ ...(so as EvapSmokeRun), samples }, context)
      : readSmoke({ ...so, samples }, reach);
  }, [samples, reach, machine, draft.startedAt === null]);
  const setup = { ...fill, machine };
  const plan = (): Plan | undefined => {
    if (!context) return undefined;
    if (circuit === "intake") return planSmoke(context, setup);
    const fuelLevel = readNumber(draft.fuelLevel);
    return planEvapSmoke(context, {
      ...setup,
      vent: draft.vent,
      hotTank: draft.hotTank,
      ...(fuelLevel === undefined ? {} : { fuelLevel }),
    });
  };
  return {
    circuit,
    kind,
    plan,
    verdict: (whole: object): Verdict | undefined => (context ? judgeCheck(kind, whole, context) : undefined),
    draft,
    set: (change: Partial<SmokeDraft>) => setDraft((before) => ({ ...before, ...change })),
    update: setDraft,
    clear,
    machine,
    machines: shop.machines,
    units,
    maxFlow: machine.maxFlow.value,
    rated: machine.ratedPressure.value,
    flowScale: UNITS[units.flow].scale,
    fill,
    reach,
    record,
    recordAt,
    reading,
  };
}
export type SmokeHandle = ReturnType<typeof useSmokeRun>;
