import type { Machine } from "../../shop/settings";
import { parseBare, parseTrusted, type Quantity } from "../../units";
import type { RequiredLeak } from "../../vehicle";
import { requiredOf } from "../evap-fields";
import { EMPTY_SMOKE, type SmokeDraft, setUpAs, sinceStart, smokeRunOf } from "../smoke";
import type { EvapSmokeRun } from "./fields";

/** A run of the vapour system on its way: besides, how the vent is kept shut, since when it is commanded, and cap-offs. */
export interface EvapSmokeDraft extends SmokeDraft {
  readonly vent: "command" | "plug";
  readonly ventAt: number | null;
  readonly fuelLevel: string;
  readonly regulated: string;
  readonly hotTank: boolean;
  readonly capOffs: readonly CapOffDraft[];
}

interface CapOffDraft {
  readonly joint: string;
  readonly before: string;
  readonly hoseSide: string;
  readonly portSide: string;
  readonly blankProved: boolean;
}

export const EMPTY_EVAP_SMOKE: EvapSmokeDraft = {
  ...EMPTY_SMOKE,
  vent: "command",
  ventAt: null,
  fuelLevel: "",
  regulated: "",
  hotTank: false,
  capOffs: [],
};

/** A run set up as one was that must be shown good, its vent kept shut in the same way. */
export const setUpVapourAs = (run: EvapSmokeRun, machines: Parameters<typeof setUpAs>[1]) => ({
  ...setUpAs(run, machines),
  vent: run.vent.by,
});

/** Pressure the machine was shown turned down to; undefined while that cannot be trusted. */
export const regulatedTo = ({ regulated }: Pick<EvapSmokeDraft, "regulated">, machine: Machine): Quantity | undefined =>
  parseTrusted(regulated, "ratedPressure", machine.ratedPressure.unit);

/**
 * The record that a run of the vapour system makes as it stands.
 * @param known conditions of the bay, the leak to be caught, s that a command holds, and the gas of the house;
 * @param end ms since 1970.
 * @returns undefined while it has not begun, or conditions or fuel level are not known.
 */
export function evapSmokeRunOf(
  draft: EvapSmokeDraft,
  machine: Machine,
  known: {
    readonly conditions: Parameters<typeof smokeRunOf>[2];
    readonly leak: RequiredLeak | undefined;
    readonly outputTime: number;
    readonly gas: EvapSmokeRun["gas"];
  },
  end: number,
): EvapSmokeRun | undefined {
  const run = smokeRunOf(draft, machine, known.conditions, end);
  const fuelLevel = parseBare(draft.fuelLevel);
  if (!run || fuelLevel === undefined) return undefined;
  const regulated = regulatedTo(draft, machine);
  const opened = draft.ventAt ?? draft.startedAt ?? end;
  return {
    ...run,
    vent: draft.vent === "plug" ? { by: "plug" } : { by: "command", at: sinceStart(draft, opened), seconds: known.outputTime },
    fuelLevel,
    ...(known.leak ? { required: requiredOf(known.leak) } : {}),
    ...(regulated ? { regulated } : {}),
    gas: known.gas,
    capOffs: draft.capOffs.flatMap(({ joint, blankProved, ...typed }) => {
      const [before, hoseSide, portSide] = [typed.before, typed.hoseSide, typed.portSide].map(parseBare);
      // Without the ball before it nothing can have fallen.
      if (before === undefined) return [];
      return [
        {
          joint,
          before,
          ...(hoseSide === undefined ? {} : { hoseSide }),
          ...(portSide === undefined ? {} : { portSide }),
          blankProved,
        },
      ];
    }),
  };
}
