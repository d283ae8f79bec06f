/**
 * Honest records with one thing of them made bad: a switch turned, a reading at nothing, far off or the wrong way round, a coarse scale,
 * a field left out. Either the verdict changes, or the check says why that field does not bear on it.
 */
import type { SchemaDescription } from "yup";
import { CHECKS, type CheckContext, type CheckId, judgeCheck } from "@/core/checks";
import {
  capRecord,
  decayRecord,
  evapSmokeRun,
  pulldownTrace,
  tankSensorRecord,
  ventPathRecord,
} from "@/core/checks/evap.fixture";
import * as sound from "@/core/checks/records.fixture";
import { COLD_AIR, contextOf, DIESEL, NATURAL, smokeRun, TURBO, VAPOUR } from "@/core/core.fixture";
import type { Members } from "@/core/form";
import { DEFAULT_LIMITS } from "@/core/shop/settings";
import { isQuantity } from "@/core/units";
import type { VehicleFacts } from "@/core/vehicle";

const CRANKCASE: VehicleFacts = {
  ...NATURAL,
  crankcaseBand: { low: { value: -25, unit: "hPa" }, high: { value: -1, unit: "hPa" } },
};
const FLAPS: VehicleFacts = { ...NATURAL, fitted: [...NATURAL.fitted, "runner-flaps"] };

/** A record of each kind that passes, and the car that it was taken on. */
const HONEST: readonly (readonly [CheckId, object, VehicleFacts])[] = [
  ["trims", sound.survey({}), NATURAL],
  ["vacuum", sound.vacuum, NATURAL],
  ["airflow", sound.airflow, NATURAL],
  ["crankcase", { ...sound.crankcase, raised: { value: -6, unit: "hPa", kind: "gauge" } }, CRANKCASE],
  ["smoke", smokeRun(), NATURAL],
  ["pinch", { ...sound.pinch, shut: 16.8 }, NATURAL],
  ["hold", sound.hold, NATURAL],
  ["valve", sound.valve, VAPOUR],
  ["output", sound.output, VAPOUR],
  ["circuit", sound.circuit, VAPOUR],
  ["chain", sound.chain, FLAPS],
  ["borescope", sound.borescope, NATURAL],
  ["evap-smoke", evapSmokeRun(0), VAPOUR],
  ["decay", decayRecord(0), VAPOUR],
  ["pulldown", pulldownTrace(), VAPOUR],
  ["vent-path", ventPathRecord(), VAPOUR],
  ["cap", capRecord(), VAPOUR],
  ["tank-sensor", tankSensorRecord(), VAPOUR],
  ["pressure-test", sound.pressure, TURBO],
  ["filter", sound.filter, DIESEL],
  ["secondary-air", sound.secondaryAir, COLD_AIR],
  ["boost", sound.boost, DIESEL],
  ["exhaust-gas", sound.exhaustGas, NATURAL],
  ["egr", sound.egr, DIESEL],
  ["back-pressure", sound.backPressure, NATURAL],
  ["bench-part", sound.benchPart, TURBO],
  ["cabin", sound.cabin, NATURAL],
];

interface Mutant {
  readonly path: readonly (string | number)[];
  readonly rule: string;
  readonly value: unknown;
}

const COARSE = 300;
const FAR = 20;
/** How long something lasted: longer is no worse, shorter is. */
const LASTS = ["seconds", "held", "window", "autoOff", "limit", "endedAt"];
const SHORT = 0.1;
const TRIMS = ["short", "long", "total"];

/** Texts that the schema allows, where it is one of a few. */
function choices(schema: SchemaDescription | undefined, path: readonly (string | number)[]): readonly unknown[] {
  let at = schema as unknown as { fields?: Record<string, unknown>; innerType?: unknown; oneOf?: unknown[] } | undefined;
  for (const key of path) at = (typeof key === "number" ? at?.innerType : at?.fields?.[key]) as typeof at;
  return at?.oneOf ?? [];
}

/** Every way to make one thing of a record bad. */
function mutantsOf(value: unknown, path: readonly (string | number)[], schema: SchemaDescription): Mutant[] {
  const made = (rule: string, next: unknown): Mutant => ({ path, rule, value: next });
  const name = path.at(-1);
  const numbers = (x: number, put: (next: number) => unknown): Mutant[] =>
    name === "division"
      ? [made("zero", put(0)), made("coarse", put(x * COARSE))]
      : LASTS.includes(String(name))
        ? [made("zero", put(0)), made("short", put(x * SHORT))]
        : [
            // A correction of a few percent is as good at none.
            ...(TRIMS.includes(String(name)) || x === 0 ? [] : [made("zero", put(0)), made("opposite", put(-x))]),
            made(
              "far",
              put(x === 0 ? (name === "zero" ? 5 : 50) : Math.abs(x) < 5 && TRIMS.includes(String(name)) ? 50 : x * FAR),
            ),
          ];
  if (typeof value === "boolean") return [made("opposite", !value)];
  if (typeof value === "number") return numbers(value, (next) => next);
  if (isQuantity(value)) return numbers(value.value, (next) => ({ ...value, value: next }));
  if (typeof value === "string")
    return choices(schema, path)
      .filter((other) => other !== value)
      .map((other) => made(`${value} → ${String(other)}`, other));
  if (Array.isArray(value))
    // A series is one reading after another: a row of numbers is no field of its own.
    return value.length === 0
      ? []
      : [made("empty", []), ...(Array.isArray(value[0]) ? [] : mutantsOf(value[0], [...path, 0], schema))];
  if (typeof value === "object" && value !== null)
    return Object.entries(value).flatMap(([key, inner]) => [
      // An exception that nobody reported is none.
      ...(inner === false ? [] : [{ path: [...path, key], rule: "missing", value: undefined }]),
      ...mutantsOf(inner, [...path, key], schema),
    ]);
  return [];
}

function put(record: unknown, [key, ...rest]: readonly (string | number)[], value: unknown): unknown {
  if (key === undefined) return value;
  if (Array.isArray(record)) return record.map((row, i) => (i === key ? put(row, rest, value) : row));
  const { [key]: own, ...others } = record as Record<string, unknown>;
  const next = put(own, rest, value);
  return next === undefined ? others : { ...others, [key]: next };
}

/** The name of a field, whichever row of a list it is of. */
const named = (path: readonly (string | number)[]): string => path.filter((key) => typeof key === "string").join(".");

function isSetUp(members: Members, [name, ...rest]: readonly (string | number)[]): boolean {
  const field = typeof name === "string" ? members[name] : undefined;
  if (!field) return false;
  if (field.parts.input?.setUp === true && field.parts.input.type !== "instrument") return true;
  const inner = rest.filter((key) => typeof key === "string");
  return inner.length > 0 && field.parts.members !== undefined && isSetUp(field.parts.members, inner);
}

export interface MutantTrial {
  readonly mutants: number;
  /** Refused at the door */
  readonly refused: number;
  readonly changed: number;
  /** The check says that the field does not bear on it */
  readonly declared: number;
  readonly undeclared: readonly string[];
  /** Fields that a declaration is needed for, by check */
  readonly needed: ReadonlySet<string>;
}

export function mutantTrial(): MutantTrial {
  let [mutants, refused, changed, declared] = [0, 0, 0, 0];
  const undeclared: string[] = [];
  const needed = new Set<string>();
  for (const [check, record, vehicle] of HONEST) {
    const { schema, members } = CHECKS[check].fields;
    // What this log's few points can show is what is asked of it here.
    const context: CheckContext =
      check === "boost"
        ? contextOf(vehicle, { limits: { ...DEFAULT_LIMITS, caughtDuct: { ...DEFAULT_LIMITS.caughtDuct, value: 3e-3 } } })
        : contextOf(vehicle);
    const honest = judgeCheck(check, record, context);
    if (honest.outcome !== "pass") {
      undeclared.push(`${check}: the honest record does not pass (${honest.headline}; ${honest.reasons[0]})`);
      continue;
    }
    for (const { path, rule, value } of mutantsOf(record, [], schema.describe() as SchemaDescription)) {
      // How a check is set up is chosen, and no reading.
      if (isSetUp(members, path)) continue;
      mutants++;
      const made = put(record, path, value) as object;
      if (!schema.isValidSync(made)) {
        refused++;
        continue;
      }
      const said = judgeCheck(check, made, context);
      const same = said.outcome === "pass" && said.headline === honest.headline && said.tested?.length === honest.tested?.length;
      if (!same) changed++;
      else if (CHECKS[check].irrelevant?.[named(path)]) {
        declared++;
        needed.add(`${check} ${named(path)}`);
      } else undeclared.push(`${check} ${path.join(".")}: ${rule}`);
    }
  }
  return { mutants, refused, changed, declared, undeclared, needed };
}
