import type { ScanLog } from "../scan-log";
import { AIRFLOW_EXTRACTOR, airflowPoints } from "./airflow";
import { BOOST_EXTRACTOR, boostTrace } from "./boost";
import { TANK_EXTRACTOR, tankTrace } from "./decay/extract";
import { GAS_EXTRACTOR, gasTrace } from "./exhaust-gas";
import { FILTER_EXTRACTOR, filterTrace } from "./filter";
import type { CheckId } from "./ids";
import { PROBE_EXTRACTOR, probeSeries } from "./probe";

interface Extractor {
  /** Kept with every record that rests on it, beside the log's hash */
  readonly version: number;
  readonly extract: (log: ScanLog, ...aim: never[]) => unknown;
}

/** Records that checks take out of a scan log by themselves; a trim survey rests on the log's steady windows. */
export const EXTRACTORS = {
  airflow: { version: AIRFLOW_EXTRACTOR, extract: airflowPoints },
  boost: { version: BOOST_EXTRACTOR, extract: boostTrace },
  decay: { version: TANK_EXTRACTOR, extract: tankTrace },
  "exhaust-gas": { version: GAS_EXTRACTOR, extract: gasTrace },
  filter: { version: FILTER_EXTRACTOR, extract: filterTrace },
  probe: { version: PROBE_EXTRACTOR, extract: probeSeries },
} as const satisfies { readonly [C in CheckId]?: Extractor };

type Extractors = typeof EXTRACTORS;
export type LoggedCheck = keyof Extractors;
/** Facts an extractor goes by besides the log. */
export type ExtractionAim<C extends LoggedCheck> =
  Parameters<Extractors[C]["extract"]> extends [ScanLog, ...infer Aim] ? Aim : never;
export type Extraction<C extends LoggedCheck> = ReturnType<Extractors[C]["extract"]>;
