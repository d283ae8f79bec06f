import { basename } from "node:path";
import * as yup from "yup";
import { CHECK_IDS, CHECKS, type CheckId, contextOf, judgeCheck, verdictWord } from "@/core/checks";
import { AGENT_NAMES, type Agent, PROBE_EXTRACTOR, type ProbeRecord, probeSeries, readTaps } from "@/core/checks/probe";
import { BadInput, strictObject, validate } from "@/core/input";
import { DEFAULT_SHOP, liftShop, type Shop, shopSchema } from "@/core/shop/settings";
import { type VehicleRecord, vehicleFields } from "@/core/vehicle";
import { type Command, guarded, parse, readText } from "./door";
import { readLogFile } from "./logs";

/** Context of `judge`: the vehicle, and the shop's own limits and house methods where they differ from the defaults. */
const contextSchema = strictObject({
  vehicle: vehicleFields.schema.required("vehicle is missing: the facts of the car"),
  shop: yup.mixed<object>().optional(),
});

export const judge: Command = {
  run(input, args) {
    const [kind] = args;
    if (!kind || !Object.hasOwn(CHECKS, kind)) {
      throw new BadInput(`There is no check "${kind ?? ""}". Known: ${CHECK_IDS.join(", ")}`, "check");
    }
    const check = CHECKS[kind as CheckId];
    const given = parse<{ record: object; context: { vehicle: VehicleRecord; shop?: object } }>(
      strictObject({
        record: yup.mixed<object>().required("record is missing: what was read"),
        context: contextSchema.required("context is missing: the vehicle it was read on"),
      }),
      input,
    );
    validate(check.fields.schema, given.record, "record");
    const shop = validate<Shop>(shopSchema, liftShop({ ...DEFAULT_SHOP, ...given.context.shop }), "context.shop");
    const { zones, ...verdict } = guarded(
      () => judgeCheck(kind as CheckId, given.record, contextOf(given.context.vehicle, shop)),
      "record",
    );
    return { check: kind, word: verdictWord(check, verdict), ...verdict, zones };
  },
};

const tapsSchema = strictObject({
  agent: yup
    .mixed<Agent>()
    .oneOf(Object.keys(AGENT_NAMES) as Agent[], "agent is gas, water or soap")
    .required("agent is missing: gas, water or soap"),
  offset: yup.number().optional(),
  closedLoop: yup.boolean().optional(),
  vehicle: vehicleFields.schema.required("vehicle is missing: the facts of the car"),
  taps: yup
    .array()
    .of(
      strictObject({ joint: yup.string().required("Name the joint"), at: yup.number().required("State the time, s") }).required(),
    )
    .min(1, "taps: mark at least one")
    .required("taps are missing: [{joint, at}]"),
});

export const probe: Command = {
  reads: "arguments",
  async run(_input, args) {
    const [logPath, tapsPath] = args;
    if (!logPath || !tapsPath) throw new BadInput("Name the log and the taps: probe <log.csv> <taps.json>", "path");
    const given = parse<{
      agent: Agent;
      offset?: number;
      closedLoop?: boolean;
      vehicle: VehicleRecord;
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
    validate(CHECKS.probe.fields.schema, record, "record");
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
