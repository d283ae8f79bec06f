import type { Field, Given } from "../form";
import type { VentShut } from "./evap-fields";
import type { Known } from "./known";

/** How the vent is kept shut under pressure or vacuum. */
export const ventShutField = (usual: VentShut["by"]): Field<Known> => ({
  type: "choice",
  label: "Vent kept shut by",
  options: [
    ["command", "Scan-tool command"],
    ["plug", "A plug by hand"],
  ],
  holds: () => usual,
});

export const ventSecondsField: Field<Known> = {
  type: "number",
  label: "The tool holds its vent command for, s",
  bare: "s",
  hint: "Re-armed in time counts as held",
  when: ({ holds }) => holds("vent.by") === "command",
  holds: ({ known }) => String(known.context.limits.outputTime.value),
};

/**
 * The vent as a record keeps it; a command began at its own time on the record's clock.
 * @param zero ms since 1970 of the record's second 0, where it was read live.
 */
export function ventOf(read: Readonly<Record<string, unknown>>, zero: number | null, { holds }: Given<Known>): object {
  const vent = (read.vent ?? {}) as { by?: VentShut["by"]; seconds?: number };
  if (vent.by !== "command") return vent;
  const commanded = holds("ventAt");
  const before = holds("vent.at");
  const live = zero !== null && typeof commanded === "number";
  return { ...vent, at: live ? Math.round((commanded - zero) / 100) / 10 : typeof before === "number" ? before : 0 };
}
