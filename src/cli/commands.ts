import { createReadStream, statSync } from "node:fs";
import * as yup from "yup";
import { readSurvey, refusal, type TrimSurvey, trimPointSchema } from "@/core/checks/trims";
import { massFlowOf, standardFlow } from "@/core/gas/air";
import { fitDecay } from "@/core/gas/decay";
import { leakDiameter, orificeFlow } from "@/core/gas/orifice";
import { BadInput, strictObject, validate } from "@/core/input";
import { foldJob, parseJobFile } from "@/core/journal";
import {
  checkLogSize,
  findSteadyWindows,
  type Mapping,
  mappingSchema,
  ScanLogError,
  ScanLogReader,
  surveyPoints,
} from "@/core/scan-log";
import { DEFAULT_LIMITS } from "@/core/shop/settings";
import { fromSi, type Quantity, quantitySchema, toSi, UNITS, unitsOf } from "@/core/units";

/** A command: JSON (or text) in, JSON out. Throws BadInput for what it cannot take. */
export interface Command {
  readonly usage: string;
  run(input: string, args: readonly string[]): unknown | Promise<unknown>;
}

/** Temperatures and pressures of scripts may lie outside a workshop's, but not outside the physics. */
const temperature = quantitySchema({ dimension: "temperature" }).test(
  "physical",
  "${path} must lie between −75 and 350 °C",
  (q) => !q || inRange(q as Quantity, 198, 623),
);
const absolutePressure = quantitySchema({ dimension: "pressure", kind: "absolute" }).test(
  "physical",
  "${path}: an absolute pressure lies between 0 and 20 bar",
  (q) => !q || inRange(q as Quantity, 0, 20e5),
);
const length = quantitySchema({ dimension: "length" }).test(
  "physical",
  "${path} must lie between 0 and 100 mm",
  (q) => !q || inRange(q as Quantity, 0, 0.1),
);
const volume = quantitySchema("volume");

function inRange(q: Quantity, low: number, high: number): boolean {
  if (!(q.unit in UNITS)) return true;
  const si = toSi(q);
  return si >= low && si <= high;
}

function parse<T>(schema: yup.Schema<unknown>, input: string): T {
  let data: unknown;
  try {
    data = JSON.parse(input);
  } catch {
    throw new BadInput("The input is not JSON: it is empty, cut off or has a stray character");
  }
  return validate<T>(schema, data);
}

/** The equations refuse with RangeError; at this door that is bad input. */
function guarded<T>(work: () => T, path = ""): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof RangeError) throw new BadInput(error.message, path);
    throw error;
  }
}

const orifice: Command = {
  usage: "orifice < {upstream, downstream, temperature, diameter, dischargeCoefficient}",
  run(input) {
    const hole = parse<{
      upstream: Quantity;
      downstream: Quantity;
      temperature: Quantity;
      diameter: Quantity;
      dischargeCoefficient?: number;
    }>(
      strictObject({
        upstream: absolutePressure.required(),
        downstream: absolutePressure.required(),
        temperature: temperature.required(),
        diameter: length.required(),
        dischargeCoefficient: yup.number().moreThan(0).max(1).optional(),
      }),
      input,
    );
    const flow = guarded(() =>
      orificeFlow({
        upstream: toSi(hole.upstream),
        downstream: toSi(hole.downstream),
        temperature: toSi(hole.temperature),
        diameter: toSi(hole.diameter),
        ...(hole.dischargeCoefficient === undefined ? {} : { dischargeCoefficient: hole.dischargeCoefficient }),
      }),
    );
    return {
      massFlow: fromSi(flow.massFlow, "g/s"),
      volumeFlow: fromSi(standardFlow(flow.massFlow), "L/min"),
      choked: flow.choked,
    };
  },
};

const leakSize: Command = {
  usage: "leak-size < {flow, pressure, ambient, temperature}",
  run(input) {
    const flowUnits = [...unitsOf("volume-flow"), ...unitsOf("mass-flow")];
    const leak = parse<{ flow: Quantity; pressure: Quantity; ambient: Quantity; temperature: Quantity }>(
      strictObject({
        flow: yup.lazy((value: Quantity | undefined) =>
          quantitySchema({
            dimension: value && unitsOf("mass-flow").includes(value.unit) ? "mass-flow" : "volume-flow",
          }).required(`flow is missing; its unit is one of ${flowUnits.join(", ")}`),
        ) as unknown as yup.Schema<unknown>,
        pressure: quantitySchema({ dimension: "pressure", kind: "gauge" })
          .test(
            "physical",
            "${path}: a gauge pressure lies between −1 and 20 bar",
            (q) => !q || inRange(q as Quantity, -101325, 20e5),
          )
          .required(),
        ambient: quantitySchema("ambient").required(),
        temperature: temperature.required(),
      }),
      input,
    );
    const ambient = toSi(leak.ambient);
    return {
      diameter: fromSi(
        guarded(
          () =>
            leakDiameter({
              massFlow: massFlowOf(leak.flow),
              upstream: ambient + toSi(leak.pressure),
              downstream: ambient,
              temperature: toSi(leak.temperature),
            }),
          "pressure",
        ),
        "mm",
      ),
    };
  },
};

const samples = yup
  .array()
  .of(yup.tuple([yup.number().required(), yup.number().required()]).required())
  .min(4, "${path}: a decay needs at least 4 samples")
  .max(100000)
  .required();

const seconds = yup.lazy((value: unknown) =>
  typeof value === "object" && value !== null
    ? quantitySchema({ dimension: "time" })
    : yup.number().min(0, "held is a time in seconds, not negative").optional(),
) as unknown as yup.Schema<unknown>;

const decay: Command = {
  usage: "decay < {samples, unit, volume, ambient, temperature, held?, required?, reference?}",
  run(input) {
    type Samples = [number, number][];
    const test = parse<{
      samples: Samples;
      unit: keyof typeof UNITS;
      volume: Quantity;
      ambient: Quantity;
      temperature: Quantity;
      held?: number | Quantity;
      required?: Quantity;
      reference?: { diameter: Quantity; samples: Samples };
    }>(
      strictObject({
        samples,
        unit: yup.string().oneOf(unitsOf("pressure"), "unit must be a pressure unit: ${values}").required(),
        volume: volume.required(),
        ambient: quantitySchema("ambient").required(),
        temperature: temperature.required(),
        held: seconds,
        required: length.optional().default(undefined),
        reference: strictObject({ diameter: length.required(), samples }).optional().default(undefined),
      }),
      input,
    );
    const run = (list: Samples) => ({ times: list.map((s) => s[0]), pressures: list.map((s) => s[1] * UNITS[test.unit].scale) });
    const held = typeof test.held === "object" ? toSi(test.held) : test.held;
    const result = guarded(
      () =>
        fitDecay({
          ...run(test.samples),
          volume: toSi(test.volume),
          ambient: toSi(test.ambient),
          temperature: toSi(test.temperature),
          ...(held === undefined ? {} : { held }),
          ...(test.required ? { required: toSi(test.required) } : {}),
          ...(test.reference ? { reference: { diameter: toSi(test.reference.diameter), ...run(test.reference.samples) } } : {}),
        }),
      "samples",
    );
    const mm = (m: number) => fromSi(m, "mm");
    return {
      diameter: mm(result.diameter),
      low: mm(result.low),
      high: mm(result.high),
      smallestVisible: mm(result.smallestVisible),
      outcome: result.outcome,
      reasons: result.reasons,
    };
  },
};

const trims: Command = {
  usage: "trims < {ambient, intakeTemperature, displacement, induction, metering, points}",
  run(input) {
    const survey = parse<
      Pick<TrimSurvey, "ambient" | "intakeTemperature" | "points"> & {
        displacement: Quantity;
        induction: "natural" | "turbo";
        metering: "maf" | "map";
      }
    >(
      strictObject({
        ambient: quantitySchema("ambient").required(),
        intakeTemperature: quantitySchema("airTemperature").required(),
        displacement: quantitySchema("displacement").required(),
        induction: yup.string().oneOf(["natural", "turbo"]).required(),
        metering: yup.string().oneOf(["maf", "map"]).required(),
        points: yup.array().of(trimPointSchema.required()).min(1).max(400).required(),
      }).test(
        "banks",
        "points: every point must give the same number of banks",
        (s) => new Set((s?.points ?? []).map((p) => p.banks?.length)).size <= 1,
      ),
      input,
    );
    const refused = refusal({ fuel: "petrol", metering: survey.metering });
    if (refused) throw new BadInput(refused, "metering");
    const limits = { good: DEFAULT_LIMITS.trimGood.value, act: DEFAULT_LIMITS.trimAct.value };
    const mm = (m: number) => fromSi(m, "mm");
    return {
      banks: readSurvey(survey, survey, "product", limits).map((bank) => ({
        shapes: bank.shapes,
        error: bank.error * 100,
        hole: bank.hole && { diameter: mm(bank.hole.diameter), low: mm(bank.hole.low), high: mm(bank.hole.high) },
        observation: bank.observation,
      })),
    };
  },
};

const readLog: Command = {
  usage: "read-log <file.csv> [mapping JSON]",
  async run(_input, args) {
    const [path, mappingText] = args;
    if (!path) throw new BadInput("Name the CSV file: read-log <file.csv>", "path");
    const mapping = mappingText ? parse<Mapping>(mappingSchema, mappingText) : undefined;
    let size: number;
    try {
      size = statSync(path).size;
    } catch {
      throw new BadInput(`There is no file "${path}"`, "path");
    }
    try {
      checkLogSize(size);
      const reader = new ScanLogReader({ totalBytes: size, ...(mapping ? { mapping } : {}) });
      for await (const chunk of createReadStream(path, { highWaterMark: 1 << 20 })) reader.push(chunk as Uint8Array);
      const log = reader.finish();
      const windows = findSteadyWindows(log, DEFAULT_LIMITS);
      return {
        rows: log.rows,
        signature: log.signature,
        notes: log.notes,
        channels: log.columns.map((c) => ({
          header: c.header,
          channel: c.channel ?? null,
          confidence: Math.round(c.confidence * 100) / 100,
          unit: c.unit ?? null,
          ...(c.unitFrom ? { unitFrom: c.unitFrom } : {}),
          textCells: c.textCells,
        })),
        steadyWindows: windows.map((w) => ({ from: w.from, to: w.to, rows: w.rows, means: w.means })),
        surveyPoints: surveyPoints(windows),
      };
    } catch (error) {
      if (error instanceof ScanLogError) throw new BadInput(error.message, error.place ?? path);
      throw error;
    }
  },
};

const assess: Command = {
  usage: "assess < job.json",
  run(input) {
    const file = parseJobFile(input);
    return foldJob(file.entries, file.shop, Date.parse(file.exportedAt));
  },
};

/** Every command by the name scripts call it. */
export const COMMANDS: Readonly<Record<string, Command>> = {
  orifice,
  "leak-size": leakSize,
  decay,
  trims,
  "read-log": readLog,
  assess,
};
