import { createHash } from "node:crypto";
import { createReadStream, readFileSync, statSync } from "node:fs";
import { basename } from "node:path";
import * as yup from "yup";
import { CHECK_IDS, CHECKS, type CheckId, contextOf, verdictWord } from "@/core/checks";
import { AGENTS, type Agent, PROBE_EXTRACTOR, type ProbeRecord, probeSeries, readTaps } from "@/core/checks/probe";
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
  readObd,
  type ScanLog,
  ScanLogError,
  ScanLogReader,
  surveyPoints,
} from "@/core/scan-log";
import { DEFAULT_LIMITS, DEFAULT_SHOP, liftShop, type Shop, shopSchema } from "@/core/shop/settings";
import { weightInWords } from "@/core/suspects";
import { fromSi, type Quantity, quantitySchema, toSi, UNITS, unitsOf } from "@/core/units";
import { type VehicleFacts, vehicleSchema } from "@/core/vehicle";

/** A command: JSON (or text) in, JSON out. Throws BadInput for what it cannot take. */
export interface Command {
  readonly usage: string;
  /** `arguments` when files named there take the place of the standard input */
  readonly reads?: "arguments";
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
      Pick<TrimSurvey, "ambient" | "intakeTemperature" | "points" | "stop"> & {
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
        stop: yup.number().min(8).max(60).optional(),
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
    const hole = (h: { diameter: number; low: number; high: number }) => ({
      diameter: mm(h.diameter),
      low: mm(h.low),
      high: mm(h.high),
    });
    const { banks, shared } = readSurvey(survey, survey, "product", limits);
    return {
      shared: shared && { odds: shared.odds, hole: hole(shared.hole) },
      banks: banks.map((bank) => ({
        shapes: bank.shapes,
        error: bank.error * 100,
        hole: bank.hole && hole(bank.hole),
        observation: bank.observation,
      })),
    };
  },
};

const readLog: Command = {
  usage: "read-log <file.csv> [mapping JSON]",
  reads: "arguments",
  async run(_input, args) {
    const [path, mappingText] = args;
    if (!path) throw new BadInput("Name the CSV file: read-log <file.csv>", "path");
    const mapping = mappingText ? parse<Mapping>(mappingSchema, mappingText) : undefined;
    const { log } = await readLogFile(path, mapping);
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
  },
};

const assess: Command = {
  usage: "assess < job.json",
  run(input) {
    const file = parseJobFile(input);
    return foldJob(file.entries, file.shop, Date.parse(file.exportedAt));
  },
};

/** What `judge` judges in: the vehicle, and the shop's own limits and house methods where they differ from the defaults. */
const contextSchema = strictObject({
  vehicle: vehicleSchema.required("vehicle is missing: the facts of the car"),
  shop: yup.mixed<object>().optional(),
});

const judge: Command = {
  usage: "judge <check> < {record, context: {vehicle, shop?}}",
  run(input, args) {
    const [kind] = args;
    if (!kind || !Object.hasOwn(CHECKS, kind)) {
      throw new BadInput(`There is no check "${kind ?? ""}". Known: ${CHECK_IDS.join(", ")}`, "check");
    }
    const check = CHECKS[kind as CheckId];
    const given = parse<{ record: object; context: { vehicle: VehicleFacts; shop?: object } }>(
      strictObject({
        record: yup.mixed<object>().required("record is missing: what was read"),
        context: contextSchema.required("context is missing: the vehicle it was read on"),
      }),
      input,
    );
    validate(check.schema, given.record, "record");
    const shop = validate<Shop>(shopSchema, liftShop({ ...DEFAULT_SHOP, ...given.context.shop }), "context.shop");
    const { zones, ...verdict } = guarded(() => check.judge(given.record, contextOf(given.context.vehicle, shop)), "record");
    return { check: kind, word: verdictWord(check, verdict), ...verdict, zones };
  },
};

const tapsSchema = strictObject({
  agent: yup.mixed<Agent>().oneOf(AGENTS, "agent is gas, water or soap").required("agent is missing: gas, water or soap"),
  offset: yup.number().optional(),
  closedLoop: yup.boolean().optional(),
  vehicle: vehicleSchema.required("vehicle is missing: the facts of the car"),
  taps: yup
    .array()
    .of(
      strictObject({ joint: yup.string().required("Name the joint"), at: yup.number().required("State the time, s") }).required(),
    )
    .min(1, "taps: mark at least one")
    .required("taps are missing: [{joint, at}]"),
});

const probeCommand: Command = {
  usage: "probe <log.csv> <taps.json>",
  reads: "arguments",
  async run(_input, args) {
    const [logPath, tapsPath] = args;
    if (!logPath || !tapsPath) throw new BadInput("Name the log and the taps: probe <log.csv> <taps.json>", "path");
    const given = parse<{
      agent: Agent;
      offset?: number;
      closedLoop?: boolean;
      vehicle: VehicleFacts;
      taps: { joint: string; at: number }[];
    }>(tapsSchema, readText(tapsPath));
    const { log, sha256 } = await readLogFile(logPath);
    const context = contextOf(given.vehicle, DEFAULT_SHOP);
    const offset = given.offset ?? 0;
    const series = probeSeries(
      log,
      given.taps.map((t) => t.at + offset),
      context.house.totalTrim,
    );
    if (!series) throw new BadInput("The log has no clock, or neither engine speed nor trims", logPath);
    const record: ProbeRecord = {
      agent: given.agent,
      source: { kind: "log", file: basename(logPath), sha256, extractor: PROBE_EXTRACTOR },
      closedLoop: given.closedLoop ?? true,
      taps: given.taps,
      series: { ...series, time: series.time.map((t) => t - offset) },
    };
    validate(CHECKS.probe.schema, record, "record");
    const verdict = CHECKS.probe.judge(record, context);
    return {
      outcome: verdict.outcome,
      headline: verdict.headline,
      reasons: verdict.reasons,
      taps: readTaps(record, context).map((r) => ({
        joint: r.tap.joint,
        at: r.tap.at,
        outcome: r.outcome,
        why: r.why,
        strength: r.strength,
        ...(r.trim ? { trim: r.trim } : {}),
        ...(r.rpm ? { rpm: r.rpm } : {}),
        ...(r.lambda ? { lambda: r.lambda } : {}),
      })),
    };
  },
};

const suspects: Command = {
  usage: "suspects <job.json>",
  reads: "arguments",
  run(input, args) {
    const file = parseJobFile(args[0] ? readText(args[0]) : input);
    const state = foldJob(file.entries, file.shop, Date.parse(file.exportedAt));
    return {
      suspects: state.suspects.map((s) => ({
        id: s.cause.id,
        name: s.cause.name,
        joint: s.cause.joint ?? null,
        odds: s.odds,
        because: s.because.map((b) => ({ ...b, weight: weightInWords(b.factor) })),
      })),
      worthNothing: state.checks
        .filter((c) => c.verdict.outcome === "void")
        .map((c) => ({ entry: c.entry, check: c.check, why: c.verdict.reasons })),
      retired: state.retired,
      next: state.next,
    };
  },
};

/** A text file by its path; one that is not there is bad input. */
function readText(path: string): string {
  try {
    return readFileSync(path, "utf8");
  } catch {
    throw new BadInput(`There is no file "${path}"`, "path");
  }
}

/** Streams a scan log in, with the hash of its bytes. Throws BadInput for what the reader refuses. */
async function readLogFile(path: string, mapping?: Mapping): Promise<{ log: ScanLog; sha256: string }> {
  let size: number;
  try {
    size = statSync(path).size;
  } catch {
    throw new BadInput(`There is no file "${path}"`, "path");
  }
  try {
    checkLogSize(size);
    const reader = new ScanLogReader({ totalBytes: size, ...(mapping ? { mapping } : {}) });
    const hash = createHash("sha256");
    for await (const chunk of createReadStream(path, { highWaterMark: 1 << 20 })) {
      hash.update(chunk as Buffer);
      reader.push(chunk as Uint8Array);
    }
    return { log: reader.finish(), sha256: hash.digest("hex") };
  } catch (error) {
    if (error instanceof ScanLogError) throw new BadInput(error.message, error.place ?? path);
    throw error;
  }
}

/** Every command by the name scripts call it. */
/** Hex log of OBD messages in, decoded values out. */
const obd: Command = {
  usage: "obd <hex.log>",
  reads: "arguments",
  run(input, [path]) {
    if (path === undefined) return readObd(input);
    return readObd(guarded(() => readText(path), "file"));
  },
};

export const COMMANDS: Readonly<Record<string, Command>> = {
  orifice,
  "leak-size": leakSize,
  decay,
  trims,
  "read-log": readLog,
  assess,
  judge,
  probe: probeCommand,
  obd,
  suspects,
};
