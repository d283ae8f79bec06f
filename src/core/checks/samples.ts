import type { RecordSource } from "./fields";
import type { Sample } from "./table";

/** Pressure over time on its way into a record: tapped live, typed as a table, or from a log. */
export interface TakenSamples {
  readonly mode: "live" | "typed" | "log";
  /** ms since 1970 of second 0 */
  readonly startedAt: number | null;
  /** Reading of the gauge now, as typed */
  readonly value: string;
  /** The table as typed */
  readonly text: string;
  readonly samples: readonly Sample[];
  readonly source: RecordSource;
}

const NO_SAMPLES: TakenSamples = {
  mode: "live",
  startedAt: null,
  value: "",
  text: "",
  samples: [],
  source: { kind: "typed" },
};

/** Form value of readings over time, whatever a kept draft gave back. */
export const takenSamples = (raw: unknown): TakenSamples =>
  typeof raw === "object" && raw !== null && Array.isArray((raw as TakenSamples).samples)
    ? { ...NO_SAMPLES, ...(raw as TakenSamples) }
    : NO_SAMPLES;

/** Recorded readings, to be corrected: as a table, unless they came from a log. */
export const samplesAgain = (samples: readonly Sample[], source: RecordSource): TakenSamples => ({
  ...NO_SAMPLES,
  mode: source.kind === "log" ? "log" : "typed",
  text: source.kind === "log" ? "" : samples.map(([t, v]) => `${t} ${v}`).join("\n"),
  samples,
  source,
});
