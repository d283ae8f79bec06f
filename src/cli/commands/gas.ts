import * as yup from "yup";
import { gasFields } from "@/core/checks/exhaust-gas/fields";
import { massFlowOf, standardFlow } from "@/core/gas/air";
import { judgeBoost } from "@/core/gas/boost";
import type { BoostLog } from "@/core/gas/boost-log";
import { fitDecay, type PressedIn } from "@/core/gas/decay";
import { FUELS, type GasFuel } from "@/core/gas/exhaust";
import { judgeExhaust, type ReadExhaust } from "@/core/gas/exhaust-origin";
import { type FilterPoint, type FilterReading, judgeFilter } from "@/core/gas/filter";
import { leakDiameter, orificeFlow } from "@/core/gas/orifice";
import { strictObject } from "@/core/input";
import { fromSi, type Quantity, quantitySchema, toSi, UNITS, unitsOf } from "@/core/units";
import { type Command, guarded, parse } from "./door";

/** Temperatures and pressures of scripts may lie outside a workshop's, but not outside the physics. */
const temperature = quantitySchema({ dimension: "temperature" }).test(
  "physical",
  "${path} must be between −75 and 350 °C",
  (q) => !q || inRange(q as Quantity, 198, 623),
);
const absolutePressure = quantitySchema({ dimension: "pressure", kind: "absolute" }).test(
  "physical",
  "${path}: an absolute pressure is between 0 and 20 bar",
  (q) => !q || inRange(q as Quantity, 0, 20e5),
);
const length = quantitySchema({ dimension: "length" }).test(
  "physical",
  "${path} must be between 0 and 100 mm",
  (q) => !q || inRange(q as Quantity, 0, 0.1),
);
const volume = quantitySchema("volume");

function inRange(q: Quantity, low: number, high: number): boolean {
  if (!(q.unit in UNITS)) return true;
  const si = toSi(q);
  return si >= low && si <= high;
}

export const orifice: Command = {
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

export const leakSize: Command = {
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
            "${path}: a gauge pressure is between −1 and 20 bar",
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

export const decay: Command = {
  run(input) {
    type Samples = [number, number][];
    const test = parse<{
      samples: Samples;
      unit: keyof typeof UNITS;
      volume: Quantity;
      ambient: Quantity;
      temperature: Quantity;
      held?: number | Quantity;
      gas?: PressedIn;
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
        gas: yup
          .string()
          .oneOf(["air", "nitrogen", "carbon-dioxide"], "gas is air, nitrogen or carbon-dioxide")
          .optional()
          .default(undefined),
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
          ...(test.gas ? { gas: test.gas } : {}),
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

/** One reading as the check has it, refused as the check refuses it; what it burns beside it. */
const exhaustSchema = (gasFields.members.idle.schema as yup.ObjectSchema<object>)
  .concat(
    yup.object({
      fuel: yup
        .mixed<GasFuel>()
        .oneOf(Object.keys(FUELS) as GasFuel[], `fuel is one of ${Object.keys(FUELS).join(", ")}`)
        .required("fuel is missing"),
      loop: yup.mixed<"closed" | "open">().oneOf(["closed", "open"], "loop is closed or open").optional(),
    }),
  )
  .required();

export const exhaustGas: Command = {
  run: (input) => {
    const read = parse<ReadExhaust>(exhaustSchema, input);
    return guarded(() => judgeExhaust(read), "co2");
  },
};

const filterPressure = quantitySchema("filterPressure");
const filterSchema = strictObject({
  displacement: quantitySchema("displacement").required("displacement is missing: the flow depends on it"),
  ambient: quantitySchema("ambient").optional().default(undefined),
  intakeTemperature: quantitySchema("airTemperature").optional().default(undefined),
  points: yup
    .array()
    .of(
      strictObject({
        state: yup
          .mixed<FilterPoint["state"]>()
          .oneOf(["key-on", "idle", "held"], "state is key-on, idle or held")
          .required("state is missing: key-on, idle or held"),
        rpm: yup.number().min(0, "rpm is not negative").max(8000, "rpm is above any diesel's").required("rpm is missing"),
        pressure: filterPressure.required("pressure is missing"),
        maf: quantitySchema("mafFlow").optional().default(undefined),
        exhaustTemperature: quantitySchema({ dimension: "temperature" })
          .test("hot", "exhaustTemperature is between 0 and 900 °C", (q) => !q || inRange(q as Quantity, 273, 1174))
          .optional()
          .default(undefined),
      }).required(),
    )
    .min(1, "points: at least one")
    .max(100)
    .required("points are missing"),
  limits: strictObject({
    idle: filterPressure.optional().default(undefined),
    good: filterPressure.optional().default(undefined),
    limit: filterPressure.optional().default(undefined),
  })
    .optional()
    .default(undefined),
  display: strictObject({ division: filterPressure.required("division is missing") })
    .optional()
    .default(undefined),
  egr: yup
    .mixed<NonNullable<FilterReading["egr"]>>()
    .oneOf(["shut", "open", "unknown"], "egr is shut, open or unknown")
    .optional(),
});

type Si<T> = { readonly [K in keyof T]: T[K] extends number | undefined ? Quantity | undefined : T[K] };

/** Quantities in SI, and none where none was given. */
const siOf = <T extends object>(quantities: T): { [K in keyof T]: number } =>
  Object.fromEntries(
    Object.entries(quantities).flatMap(([name, q]) => (q === undefined ? [] : [[name, toSi(q as Quantity)]])),
  ) as { [K in keyof T]: number };

export const filter: Command = {
  run(input) {
    const { displacement, ambient, intakeTemperature, points, limits, display, egr } = parse<{
      displacement: Quantity;
      ambient?: Quantity;
      intakeTemperature?: Quantity;
      points: { state: FilterPoint["state"]; rpm: number; pressure: Quantity; maf?: Quantity; exhaustTemperature?: Quantity }[];
      limits?: Si<NonNullable<FilterReading["limits"]>>;
      display?: { division: Quantity };
      egr?: NonNullable<FilterReading["egr"]>;
    }>(filterSchema, input);
    const { sign: _, ...judged } = guarded(
      () =>
        judgeFilter({
          ...siOf({ displacement, ambient, intakeTemperature }),
          points: points.map(({ state, rpm, ...read }) => ({ state, rpm, ...siOf(read) })),
          ...(limits ? { limits: siOf(limits) } : {}),
          ...(display ? { division: Math.abs(toSi(display.division)) } : {}),
          ...(egr ? { egr } : {}),
        }),
      "points",
    );
    return judged;
  },
};

const mass = quantitySchema("mafFlow");
const travel = (name: string) =>
  yup.number().min(0, `${name} is a percentage`).max(100, `${name} is a percentage`).required(`${name} is missing`);
const boostSchema = strictObject({
  ambient: quantitySchema("ambient").required("ambient is missing"),
  fuel: yup.string().oneOf(["petrol", "diesel"], "fuel is petrol or diesel").required("fuel is missing"),
  displacement: quantitySchema("displacement").required("displacement is missing"),
  egr: yup
    .string()
    .oneOf(["shut", "open", "unknown"], "egr is shut, open or unknown")
    .required("egr is missing: shut, open or unknown"),
  ownEfficiency: yup
    .number()
    .min(40, "ownEfficiency is a percentage, 40 or more")
    .max(130, "ownEfficiency is a percentage, 130 at most")
    .optional()
    .default(undefined),
  points: yup
    .array()
    .of(
      strictObject({
        rpm: yup.number().min(0, "rpm is not negative").max(12000, "rpm is above any engine's").required("rpm is missing"),
        map: quantitySchema("manifold").optional().default(undefined),
        charge: quantitySchema("manifold").optional().default(undefined),
        asked: quantitySchema("asked").optional().default(undefined),
        maf: mass.optional().default(undefined),
        trim: yup.number().min(-60, "trim is below -60 %").max(60, "trim is above 60 %").optional().default(undefined),
        chargeTemperature: temperature.required("chargeTemperature is missing"),
        actuator: strictObject({ command: travel("command"), position: travel("position") })
          .optional()
          .default(undefined),
        barometer: quantitySchema("ambient").optional().default(undefined),
        exhaust: quantitySchema("exhaustPressure").optional().default(undefined),
        filter: quantitySchema("filterPressure").optional().default(undefined),
      })
        .required()
        .test(
          "standing",
          "barometer, exhaust and filter are read with the engine standing: give them at the point with rpm 0",
          (p) => {
            const { rpm, ...read } = p as { rpm?: number; barometer?: unknown; exhaust?: unknown; filter?: unknown };
            return rpm === 0 || (read.barometer ?? read.exhaust ?? read.filter) === undefined;
          },
        ),
    )
    .min(1, "Give at least one point")
    .max(400, "At most 400 points: give means of steady stretches")
    .required("points is missing"),
});

export const boost: Command = {
  run(input) {
    type Point = {
      rpm: number;
      map?: Quantity;
      charge?: Quantity;
      asked?: Quantity;
      maf?: Quantity;
      trim?: number;
      chargeTemperature: Quantity;
      actuator?: { command: number; position: number };
      barometer?: Quantity;
      exhaust?: Quantity;
      filter?: Quantity;
    };
    const { points, ...log } = parse<{
      ambient: Quantity;
      fuel: BoostLog["fuel"];
      displacement: Quantity;
      egr: BoostLog["egr"];
      ownEfficiency?: number;
      points: Point[];
    }>(boostSchema, input);
    const { shapes, efficiency, hole, reasons } = guarded(
      () =>
        judgeBoost({
          ambient: toSi(log.ambient),
          fuel: log.fuel,
          displacement: toSi(log.displacement),
          egr: log.egr,
          ...(log.ownEfficiency === undefined ? {} : { known: log.ownEfficiency / 100 }),
          points: points.map(({ rpm, trim, actuator, ...read }) => ({
            rpm,
            ...siOf(read),
            ...(trim === undefined ? {} : { trim: trim / 100 }),
            ...(actuator ? { actuator: { command: actuator.command / 100, position: actuator.position / 100 } } : {}),
          })),
        }),
      "points",
    );
    return {
      shapes,
      efficiency,
      hole: hole && Object.fromEntries(Object.entries(hole).map(([name, diameter]) => [name, fromSi(diameter, "mm")])),
      reasons,
    };
  },
};
