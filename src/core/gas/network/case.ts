import * as yup from "yup";
import { BadInput, strictObject, validate } from "../../input";
import { findUnit, type Quantity, quantitySchema, toSi, UNITS } from "../../units";
import { massFlowOf } from "../air";
import { SHARP_EDGED } from "../orifice";
import type { JointLaw } from "./joints";
import { type NetworkSpec, OUTSIDE } from "./network";

/** A joint as a case writes it: areas in mm², resistances in Pa·s/m³. */
interface CaseJoint {
  readonly id: string;
  readonly from: string;
  readonly to: string;
  readonly type: "orifice" | "one-way" | "pipe" | "pump" | "regulator";
  readonly area?: number;
  readonly dischargeCoefficient?: number;
  readonly resistance?: number;
  readonly setPressure?: Quantity;
  readonly maxFlow?: Quantity;
}
type Settings = Partial<Omit<CaseJoint, "id" | "from" | "to" | "type">>;

interface Case {
  readonly ambient: Quantity;
  readonly temperature: Quantity;
  readonly isothermal?: boolean;
  readonly zones: readonly {
    readonly id: string;
    readonly volume: Quantity;
    readonly temperature?: Quantity;
    readonly pressure?: Quantity;
    readonly wall?: { readonly timeConstant: number };
  }[];
  readonly joints: readonly CaseJoint[];
  readonly tracer?: { readonly source: string };
  readonly events?: readonly { readonly at: number; readonly joint: string; readonly set: Settings }[];
  readonly until: number;
  readonly every: number;
}

/** A change of a joint's law at a time, s. */
export interface NetworkEvent {
  readonly at: number;
  readonly joint: number;
  readonly law: JointLaw;
}

/** A network, what changes in it when, and how long and how often it is read, s. */
export interface Simulation {
  readonly spec: NetworkSpec;
  /** By time; what falls on one time in the order it was written */
  readonly events: readonly NetworkEvent[];
  readonly until: number;
  readonly every: number;
}

const MOST_ZONES = 200;
const MOST_JOINTS = 400;
const MOST_EVENTS = 10_000;
const MOST_ROWS = 200_000;
/** A day, s. */
const LONGEST = 86_400;

/** Fields of a joint of each type: the first list is needed, the second may be said. */
const PARTS: Readonly<
  Record<CaseJoint["type"], readonly [needs: readonly (keyof Settings)[], takes: readonly (keyof Settings)[]]>
> = {
  orifice: [["area"], ["dischargeCoefficient"]],
  "one-way": [["area"], ["dischargeCoefficient"]],
  pipe: [[], ["resistance", "area", "dischargeCoefficient"]],
  pump: [["maxFlow"], ["setPressure"]],
  regulator: [["setPressure", "maxFlow"], []],
};
const TYPES = Object.keys(PARTS) as CaseJoint["type"][];

const id = (what: string) =>
  yup
    .string()
    .matches(/^[A-Za-z0-9][\w.-]{0,39}$/, `${what} is named by up to 40 letters, digits, dots, dashes and underscores`)
    .required(`${what} has no id`);
const number = (name: string) => yup.number().typeError(`${name} is a number`);

const settings = {
  area: number("area, in mm²,")
    .min(0, "area is not negative, in mm²")
    .max(1e6, "area is in mm²: no joint of a car has a square metre")
    .optional(),
  dischargeCoefficient: number("dischargeCoefficient")
    .moreThan(0, "dischargeCoefficient is above 0 and up to 1")
    .max(1, "dischargeCoefficient is above 0 and up to 1")
    .optional(),
  resistance: number("resistance, in Pa·s/m³,").moreThan(0, "resistance, in Pa·s/m³, is above 0").optional(),
  setPressure: quantitySchema({ dimension: "pressure" }).optional().default(undefined),
  // A volume flow counts at standard state.
  maxFlow: yup.lazy((q: unknown) => {
    const unit = findUnit(String((q as Partial<Quantity> | undefined)?.unit));
    const dimension = unit && UNITS[unit].dimension === "mass-flow" ? "mass-flow" : "volume-flow";
    return quantitySchema({ dimension }).optional().default(undefined);
  }),
};

const caseSchema = strictObject({
  ambient: quantitySchema("ambient").required("ambient is missing"),
  temperature: quantitySchema("airTemperature").required("temperature is missing"),
  isothermal: yup.boolean().optional(),
  zones: yup
    .array()
    .of(
      strictObject({
        id: id("A zone").notOneOf([OUTSIDE], `"${OUTSIDE}" is always there: its pressure is ambient, name your zones otherwise`),
        volume: quantitySchema("gasVolume").required("A zone has a volume"),
        temperature: quantitySchema("gasTemperature").optional().default(undefined),
        pressure: quantitySchema({ dimension: "pressure" }).optional().default(undefined),
        wall: strictObject({
          timeConstant: number("timeConstant, in s,")
            .moreThan(0, "A wall's time constant is above 0 s")
            .required("timeConstant is missing"),
        })
          .optional()
          .default(undefined),
      }).required(),
    )
    .min(1, "Give at least one zone")
    .max(MOST_ZONES, `At most ${MOST_ZONES} zones`)
    .required("zones is missing"),
  joints: yup
    .array()
    .of(
      strictObject({
        id: id("A joint"),
        from: yup.string().required("A joint goes from a zone"),
        to: yup.string().required("A joint goes to a zone"),
        type: yup
          .string()
          .oneOf(TYPES, `type is one of ${TYPES.join(", ")}`)
          .required("type is missing"),
        ...settings,
      }).required(),
    )
    .max(MOST_JOINTS, `At most ${MOST_JOINTS} joints`)
    .required("joints is missing"),
  tracer: strictObject({ source: yup.string().required("source is missing: a zone or a joint") })
    .optional()
    .default(undefined),
  events: yup
    .array()
    .of(
      strictObject({
        at: number("at, in s,").min(0, "An event lies in the past: times count from the start, in s").required("at is missing"),
        joint: yup.string().required("joint is missing"),
        set: strictObject(settings).required("set is missing"),
      }).required(),
    )
    .max(MOST_EVENTS, `At most ${MOST_EVENTS} events`)
    .optional(),
  until: number("until, in s,")
    .moreThan(0, "until lies after the start, in s")
    .max(LONGEST, `until is within a day, ${LONGEST} s`)
    .required("until is missing"),
  every: number("every, in s,").moreThan(0, "every is above 0 s").required("every is missing"),
});

/** Reads a case. Throws BadInput with the place for what no network is. */
export function readCase(value: unknown): Simulation {
  // A list far too long is refused by its length, before every one of its parts is looked at.
  const { events: many } = (typeof value === "object" && value !== null ? value : {}) as { events?: unknown };
  if (Array.isArray(many) && many.length > MOST_EVENTS)
    throw new BadInput(`At most ${MOST_EVENTS} events, not ${many.length}`, "events");
  const given = validate<Case>(caseSchema, value);
  const { zones, joints, events = [], until, every } = given;
  const ambient = toSi(given.ambient);
  const temperature = toSi(given.temperature);
  if (until / every > MOST_ROWS) throw new BadInput(`Read it less often: at most ${MOST_ROWS} rows`, "every");
  once(
    zones.map((z) => z.id),
    "zones",
  );
  once(
    joints.map((j) => j.id),
    "joints",
  );
  const known = new Set([OUTSIDE, ...zones.map((z) => z.id)]);
  joints.forEach((j, i) => {
    for (const end of ["from", "to"] as const)
      if (!known.has(j[end])) throw new BadInput(`There is no zone "${j[end]}"`, `joints[${i}].${end}`);
    if (j.from === j.to) throw new BadInput("A joint ties two zones: this one leads back into its own", `joints[${i}].to`);
  });
  const { tracer } = given;
  const sources = [...known, ...joints.map((j) => j.id)].filter((s) => s === tracer?.source);
  if (tracer && sources.length !== 1)
    throw new BadInput(
      sources.length === 0
        ? `There is no zone and no joint "${tracer.source}"`
        : `"${tracer.source}" is a zone and a joint: rename one`,
      "tracer.source",
    );
  const laws = joints.map((j, i) => lawOf(j, ambient, `joints[${i}]`));
  const now = [...joints];
  const changes = events
    .map((event, i) => ({ ...event, i }))
    .toSorted((a, b) => a.at - b.at)
    .map(({ at, joint, set, i }): NetworkEvent => {
      const k = joints.findIndex((j) => j.id === joint);
      if (k < 0) throw new BadInput(`There is no joint "${joint}"`, `events[${i}].joint`);
      const changed = { ...(now[k] as CaseJoint), ...set };
      now[k] = changed;
      return { at, joint: k, law: lawOf(changed, ambient, `events[${i}].set`) };
    });
  return {
    spec: {
      ambient,
      temperature,
      ...(given.isothermal ? { isothermal: true } : {}),
      ...(tracer ? { tracer: tracer.source } : {}),
      zones: zones.map((z, i) => {
        const pressure = z.pressure ? absolute(z.pressure, ambient) : ambient;
        if (!(pressure >= 100 && pressure <= 5e6))
          throw new BadInput(
            "A zone's pressure is between 1 hPa and 50 bar absolute: say its kind, gauge, vacuum or absolute",
            `zones[${i}].pressure`,
          );
        return {
          id: z.id,
          volume: toSi(z.volume),
          pressure,
          temperature: z.temperature ? toSi(z.temperature) : temperature,
          ...(z.wall ? { wallTime: z.wall.timeConstant } : {}),
        };
      }),
      joints: joints.map((j, i) => ({ id: j.id, from: j.from, to: j.to, law: laws[i] as JointLaw })),
    },
    events: changes,
    until,
    every,
  };
}

function once(ids: readonly string[], list: string): void {
  const at = ids.findIndex((one, i) => ids.indexOf(one) < i);
  if (at >= 0) throw new BadInput(`"${ids[at]}" is there twice`, `${list}[${at}].id`);
}

/** Pa absolute; a pressure without a kind is absolute. */
function absolute(q: Quantity, ambient: number): number {
  if (q.kind === "gauge") return ambient + toSi(q);
  return q.kind === "vacuum" ? ambient - toSi(q) : toSi(q);
}

const MM2 = 1e-6;

function lawOf(joint: CaseJoint, ambient: number, path: string): JointLaw {
  const { type } = joint;
  const [needs, takes] = PARTS[type];
  for (const part of Object.keys(settings) as (keyof Settings)[]) {
    if (needs.includes(part) && joint[part] === undefined)
      throw new BadInput(`A joint of type ${type} needs ${part}`, `${path}.${part}`);
    if (joint[part] !== undefined && !needs.includes(part) && !takes.includes(part))
      throw new BadInput(`A joint of type ${type} has no ${part}`, `${path}.${part}`);
  }
  const effectiveArea = (joint.area ?? 0) * MM2 * (joint.dischargeCoefficient ?? SHARP_EDGED);
  const maxFlow = joint.maxFlow ? massFlowOf(joint.maxFlow) : 0;
  if (maxFlow < 0) throw new BadInput("maxFlow is not negative", `${path}.maxFlow`);
  switch (type) {
    case "orifice":
    case "one-way":
      return { type, effectiveArea };
    case "pipe": {
      if ((joint.resistance === undefined) === (joint.area === undefined))
        throw new BadInput(
          "A pipe has a resistance, in Pa·s/m³, or the area of the hole that passes as much: one of them",
          `${path}.resistance`,
        );
      return joint.resistance === undefined ? { type: "orifice", effectiveArea } : { type, resistance: joint.resistance };
    }
    case "pump": {
      const stall = joint.setPressure;
      if (stall && (stall.kind === "absolute" || !(toSi(stall) > 0)))
        throw new BadInput(
          "A pump's setPressure is the rise at which it delivers nothing more: gauge, above nothing",
          `${path}.setPressure`,
        );
      return { type, maxFlow, stallPressure: stall ? toSi(stall) : Number.POSITIVE_INFINITY };
    }
    case "regulator": {
      const set = joint.setPressure as Quantity;
      const setPressure = set.kind === undefined ? ambient + toSi(set) : absolute(set, ambient);
      if (!(setPressure > 0))
        throw new BadInput(
          "A regulator's setPressure is gauge where no kind is given, and is above a vacuum",
          `${path}.setPressure`,
        );
      return { type, setPressure, maxFlow };
    }
  }
}
