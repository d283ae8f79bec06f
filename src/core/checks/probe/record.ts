import * as yup from "yup";
import { strictObject } from "../../input";
import { type Quantity, quantitySchema } from "../../units";
import {
  jointField,
  numbersField,
  oneOfField,
  percentField,
  type RecordSource,
  rpmField,
  secondsField,
  sourceField,
} from "../fields";

export const AGENTS = ["gas", "water", "soap"] as const;
export type Agent = (typeof AGENTS)[number];
export const AGENT_NAMES: Record<Agent, string> = { gas: "Enrichment gas", water: "Water", soap: "Soapy water" };

/** One spot, one tap. */
export interface ProbeTap {
  readonly joint: string;
  /** s on the log's clock */
  readonly at?: number;
  /** Brought to it while the hose or duct was bent: a crack that opens as it moves */
  readonly flexed?: boolean;
  /** Read by eye when there is no log: total trim in percent, engine speed in 1/min */
  readonly typed?: {
    /** The tool showed the short-term trim alone: what moves within seconds shows in it as well */
    readonly shows?: "short";
    readonly trimBefore: number;
    readonly trimAfter: number;
    readonly rpmBefore: number;
    readonly rpmAfter: number;
  };
}

/** What the log says around the taps; every column as long as `time`. */
export interface ProbeSeries {
  /** s */
  readonly time: readonly number[];
  /** Total trim, percent, mean of the banks */
  readonly trim?: readonly number[];
  /** 1/min */
  readonly rpm?: readonly number[];
  readonly lambda?: readonly number[];
  /** Percent */
  readonly throttle?: readonly number[];
  /** 1 closed, 0 open */
  readonly loop?: readonly number[];
}

export interface ProbeRecord {
  readonly agent: Agent;
  readonly source: RecordSource;
  readonly coolant?: Quantity;
  /** What the scan tool said of the loop; the series says it where it has the column */
  readonly closedLoop: boolean;
  readonly taps: readonly ProbeTap[];
  readonly series?: ProbeSeries;
}

const column = numbersField(20_000).optional().default(undefined);

export const probeTapSchema = strictObject({
  joint: jointField,
  at: secondsField("The tap's time").optional(),
  flexed: yup.boolean().optional(),
  typed: strictObject({
    shows: yup.mixed<"short">().oneOf(["short"]).optional(),
    trimBefore: percentField("Trim before"),
    trimAfter: percentField("Trim after"),
    rpmBefore: rpmField,
    rpmAfter: rpmField,
  })
    .optional()
    .default(undefined),
});

export const probeSchema = strictObject({
  agent: oneOfField("The agent", AGENTS),
  source: sourceField.required(),
  coolant: quantitySchema("coolant").optional().default(undefined),
  closedLoop: yup.boolean().required("Say whether the loop was closed"),
  taps: yup
    .array()
    .of(probeTapSchema.required())
    .min(1, "No tap yet: mark one as you bring the agent to a spot")
    .max(200)
    .required(),
  series: strictObject({
    time: column.required("The series has no time"),
    trim: column,
    rpm: column,
    lambda: column,
    throttle: column,
    loop: column,
  })
    .test("lengths", "Every column of the series is as long as its time", (series) => {
      const all = Object.values(series ?? {}).filter((c): c is number[] => Array.isArray(c));
      return all.every((c) => c.length === all[0]?.length);
    })
    .optional()
    .default(undefined),
});
