"use client";

import { useMemo } from "react";
import { useForm } from "react-hook-form";
import { entryPrice, regulatedTo } from "@/core/checks/evap-smoke";
import { asKept, asTyped, pinchedOf, smokeSetupForm, vapourBlocks } from "@/core/checks/smoke";
import { type FormState, formStateOf, isRequired } from "@/core/form";
import { usualSetup, type ZoneId } from "@/core/vehicle";
import { usePreferences } from "../../../session/preferences";
import { useJob } from "../../use-job";
import type { SmokeHandle } from "./use-smoke-run";

/** The set-up and the machine's proof of a run as one form; what is answered goes into the run's own draft. */
export function useSmokeSetup(run: SmokeHandle) {
  const { layout, context } = useJob();
  const { format } = usePreferences();
  const { circuit, draft, set, machine, machines, reach, busy } = run;
  if (!layout || !context) throw new Error("A run needs the vehicle's facts");
  const { control } = useForm();
  // A machine that was turned down comes up to what it was turned down to, and no further.
  const regulated = circuit === "evap" ? regulatedTo(draft, machine) : undefined;
  const full = { ...(regulated ?? machine.ratedPressure), kind: "gauge" as const };
  const says = `${regulated ? "Regulated to" : "Rated"} ${format(full)}`;
  const throughEngine = (reach?.behindEngine.length ?? 0) > 0;
  const entry = circuit === "evap" ? layout.joints.find((j) => j.id === draft.entry) : undefined;
  const price = entry && entryPrice(entry);
  const known = useMemo(
    () => ({ layout, circuit, machines, machine, throughEngine, context, price, full: { value: full.value, says } }),
    [layout, circuit, machines, machine, throughEngine, context, price, full.value, says],
  );
  const formState = useMemo(
    () => formStateOf(smokeSetupForm.fields, { ...asTyped(draft), pinched: pinchedOf(draft.blocked) }, known),
    [draft, known],
  );
  const goIn = (entry: string, into?: ZoneId) => {
    const setup = usualSetup(layout, entry, into);
    const blocked = circuit === "evap" ? vapourBlocks(draft.vent) : setup.blocked;
    set({ into: undefined, ...setup, blocked });
  };
  return {
    of: {
      form: smokeSetupForm,
      formState,
      control,
      busy,
      required: (name: string) => isRequired(smokeSetupForm, name, formState),
      value: formState.value as FormState<typeof known>["value"] & (<T>(name: string) => T),
    },
    /** Choices that were answered by hand, as the draft keeps it */
    change: (name: string, value: unknown) => {
      if (name === "entry") goIn(String(value));
      else if (name === "into") goIn(draft.entry, value as ZoneId);
      else if (name === "vent")
        set({ vent: value as typeof draft.vent, blocked: vapourBlocks(value as typeof draft.vent, draft.blocked) });
      else if (name === "pinched") set({ blocked: vapourBlocks(draft.vent, value as readonly string[]) });
      else set(asKept(name, value));
    },
  };
}
