"use client";

import { useDeferredValue, useMemo } from "react";
import { readSmoke, type SmokeReading, type SmokeRun } from "@/core/checks/smoke";
import { DEFAULT_LIMITS, type Machine } from "@/core/shop/settings";
import { type Quantity, UNITS } from "@/core/units";
import { reachOf, usualSetup, type ZoneId } from "@/core/vehicle";
import { useDraft } from "../../../session/storage";
import { useJob } from "../../use-job";

/** A smoke run on its way: a draft on the device from the first switch to the record. Times are ms since 1970. */
export interface SmokeDraft {
  phase: "setup" | "proof" | "run";
  machineId: string;
  entry: string;
  blocked: readonly string[];
  heldOpen: readonly string[];
  heaterOn: number | null;
  proofPressure: string;
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
}

const EMPTY_RUN: SmokeDraft = {
  phase: "setup",
  machineId: "",
  entry: "",
  blocked: [],
  heldOpen: [],
  heaterOn: null,
  proofPressure: "",
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
};

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
export function useSmokeRun(proofPressure: (typed: string, machine: Machine) => Quantity | undefined) {
  const { id, shop, layout, state } = useJob();
  const best = state.next.find((n) => n.check === "smoke")?.place ?? "air-meter";
  const empty = useMemo(() => ({ ...EMPTY_RUN, ...(layout ? usualSetup(layout, best) : {}) }), [layout, best]);
  const [draft, setDraft, clear] = useDraft<SmokeDraft>(`pelota.draft.${id}.smoke`, empty);
  const machine = shop.machines.find((m) => m.id === draft.machineId) ?? shop.machines[0] ?? ANY_MACHINE;
  const reach = useMemo(
    () => (layout ? reachOf(layout, { entry: draft.entry, blocked: draft.blocked, heldOpen: draft.heldOpen }) : undefined),
    [layout, draft.entry, draft.blocked, draft.heldOpen],
  );
  const units = { flow: machine.maxFlow.unit, pressure: machine.ratedPressure.unit };

  const recordAt = (end: number): SmokeRun | undefined => {
    const { conditions } = state;
    if (!conditions || draft.startedAt === null) return undefined;
    const seconds = (ms: number) => Math.round((ms - (draft.startedAt as number)) / 100) / 10;
    const pressure = draft.proved ? proofPressure(draft.proofPressure, machine) : undefined;
    return {
      machine: {
        name: machine.name,
        ratedPressure: machine.ratedPressure,
        maxFlow: machine.maxFlow,
        autoOff: machine.autoOff,
        ...(machine.calibration ? { calibration: machine.calibration } : {}),
      },
      ...(pressure ? { proof: { pressure, ballAtBottom: draft.ballAtBottom, smokeSeen: draft.smokeSeen } } : {}),
      entry: draft.entry,
      blocked: draft.blocked,
      heldOpen: draft.heldOpen,
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
    };
  };
  const record = draft.endedAt === null ? undefined : recordAt(draft.endedAt);
  // The ball follows the hand at once; fit and plot come after it.
  const samples = useDeferredValue(draft.samples);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the reading rests on the samples alone
  const reading = useMemo((): SmokeReading | undefined => {
    const so = draft.startedAt === null ? undefined : recordAt(draft.startedAt);
    return so && reach ? readSmoke({ ...so, samples }, reach) : undefined;
  }, [samples, reach, machine, draft.startedAt === null]);
  return {
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
    reach,
    record,
    recordAt,
    reading,
  };
}
export type SmokeHandle = ReturnType<typeof useSmokeRun>;
