"use client";

import { useCallback, useContext, useDeferredValue, useMemo } from "react";
import { type CheckContext, judgeCheck, type Plan, type Verdict } from "@/core/checks";
import {
  EMPTY_EVAP_SMOKE,
  type EvapSmokeDraft,
  type EvapSmokeRun,
  evapSmokeRunOf,
  planEvapSmoke,
  preferredEntry,
  readEvapSmoke,
  setUpVapourAs,
} from "@/core/checks/evap-smoke";
import { planSmoke, readSmoke, type SmokeReading, type SmokeRun, setUpAs, smokeRunOf } from "@/core/checks/smoke";
import { fuelLevelNow, stillOwed } from "@/core/journal";
import { DEFAULT_LIMITS, type Machine } from "@/core/shop/settings";
import { parseBare, UNITS } from "@/core/units";
import { type Circuit, reachOf, usualSetup } from "@/core/vehicle";
import { useDraft } from "../../../session/storage";
import { useJob } from "../../use-job";
import { WantedPlace } from "../use-check-form";
import { useLastProved } from "./kept-proofs";

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

/** Plan of what a run would read and prove as it is set up; undefined until the vehicle is described. */
function planOf(circuit: Circuit, draft: EvapSmokeDraft, machine: Machine, context: CheckContext | undefined): Plan | undefined {
  if (!context) return undefined;
  const { entry, into, blocked, heldOpen } = draft;
  const setup = { entry, ...(into ? { into } : {}), blocked, heldOpen, machine };
  if (circuit === "intake") return planSmoke(context, setup);
  const fuelLevel = parseBare(draft.fuelLevel);
  const { vent, hotTank } = draft;
  return planEvapSmoke(context, { ...setup, vent, hotTank, ...(fuelLevel === undefined ? {} : { fuelLevel }) });
}

/** The run's draft, kept on this device, with everything worked out from it: machine, reach, record so far, reading. */
export function useSmokeRun(circuit: Circuit) {
  const { id, shop, layout, context, state } = useJob();
  const kind = KIND[circuit];
  const wanted = useContext(WantedPlace);
  const best =
    wanted ??
    state.next.find((n) => n.check === kind)?.place ??
    (circuit === "evap" && context ? preferredEntry(context) : "air-meter");
  // From the way in that is asked for, or else as it was when it failed.
  const failed = useMemo(() => {
    const owed = stillOwed(kind, state) as readonly EvapSmokeRun[];
    return owed.findLast((run) => wanted === undefined || run.entry === wanted);
  }, [kind, state, wanted]);
  const level = circuit === "evap" ? fuelLevelNow(state) : undefined;
  const empty = useMemo(
    () => ({
      ...EMPTY_EVAP_SMOKE,
      ...(level === undefined ? {} : { fuelLevel: String(level) }),
      ...(failed
        ? (circuit === "evap" ? setUpVapourAs : setUpAs)(failed, shop.machines)
        : layout
          ? usualSetup(layout, best)
          : {}),
    }),
    [circuit, layout, best, failed, level, shop.machines],
  );
  const [kept, setDraft, clear, { busy, send }] = useDraft<EvapSmokeDraft>(`pelota.draft.${id}.${kind}`, empty);
  const set = useCallback((change: Partial<EvapSmokeDraft>) => setDraft((before) => ({ ...before, ...change })), [setDraft]);
  const last = useLastProved();
  const machine =
    shop.machines.find((m) => m.id === kept.machineId) ??
    shop.machines.find((m) => m.name === last) ??
    shop.machines[0] ??
    ANY_MACHINE;
  // The machine that is gone by is the one that stands there.
  const draft = useMemo(() => ({ ...kept, machineId: machine.id }), [kept, machine.id]);
  const units = { flow: machine.maxFlow.unit, pressure: machine.ratedPressure.unit };

  const { entry, into, blocked, heldOpen } = draft;
  const fill = useMemo(() => ({ entry, ...(into ? { into } : {}), blocked, heldOpen }), [entry, into, blocked, heldOpen]);
  const reach = useMemo(() => (layout ? reachOf(layout, fill) : undefined), [layout, fill]);

  const known = {
    conditions: state.conditions,
    leak: state.requiredLeak,
    outputTime: (context?.limits ?? DEFAULT_LIMITS).outputTime.value,
    gas: shop.house.evapGas,
  };
  const recordAt = (end: number): SmokeRun | EvapSmokeRun | undefined =>
    circuit === "evap" ? evapSmokeRunOf(draft, machine, known, end) : smokeRunOf(draft, machine, state.conditions, end);
  const record = draft.endedAt === null ? undefined : recordAt(draft.endedAt);

  // The ball follows the hand at once; fit and plot come after it.
  const samples = useDeferredValue(draft.samples);
  const started = draft.startedAt !== null;
  const { fuelLevel } = draft;
  const reading = useMemo((): SmokeReading | undefined => {
    if (!started || !reach || !context) return undefined;
    // The size rests on these alone: what is marked meanwhile changes nothing of it.
    const sizing: EvapSmokeDraft = { ...EMPTY_EVAP_SMOKE, ...fill, samples, fuelLevel, zeroed: true, startedAt: 0 };
    if (circuit === "intake") {
      const run = smokeRunOf(sizing, machine, state.conditions, 0);
      return run && readSmoke(run, reach);
    }
    const bare = { conditions: state.conditions, leak: undefined, outputTime: 0, gas: "inert" } as const;
    const run = evapSmokeRunOf(sizing, machine, bare, 0);
    return run && readEvapSmoke(run, context);
  }, [started, samples, fill, fuelLevel, reach, machine, circuit, context, state.conditions]);

  return {
    circuit,
    kind,
    plan: () => planOf(circuit, draft, machine, context),
    verdict: (whole: object): Verdict | undefined => (context ? judgeCheck(kind, whole, context) : undefined),
    draft,
    set,
    update: setDraft,
    clear,
    busy,
    send,
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
