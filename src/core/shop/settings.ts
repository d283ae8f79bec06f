import * as yup from "yup";
import { fields, formOf, text } from "../form";
import { strictObject } from "../input";
import { DEFAULT_HOUSE, type HouseMethods, houseSchema } from "./house";
import { type Instrument, instrumentFields } from "./instrument";
import { DEFAULT_LIMITS, type Limits, limitsSchema } from "./limits";
import { type Machine, machineFields } from "./machine";

export * from "./house";
export * from "./instrument";
export * from "./limits";
export * from "./machine";

/** Everything the shop decides, as judging needs it; travels with an exported job. */
export interface Shop {
  readonly name: string;
  readonly limits: Limits;
  readonly house: HouseMethods;
  readonly machines: readonly Machine[];
  readonly instruments: readonly Instrument[];
}

/** The shop's settings as they were saved once; version 0 are the defaults. */
export interface ShopVersion {
  readonly version: number;
  /** ISO time and name of who saved them */
  readonly at: string;
  readonly by: string;
  readonly shop: Shop;
}

const nameFields = fields({
  name: text({
    name: "The shop",
    label: "Name of the shop, as printed on documents",
    missing: "Name the shop",
    max: 80,
  }),
});
export const shopNameForm = formOf<Pick<Shop, "name">>()(nameFields, {
  ask: { name: { defaultValue: ({ known }) => known.name } },
});

export const shopSchema = strictObject({
  name: nameFields.members.name.schema,
  limits: limitsSchema.required(),
  house: houseSchema.required(),
  machines: yup.array().of(machineFields.schema.required()).max(50).required(),
  instruments: yup.array().of(instrumentFields.schema.required()).max(50).required(),
});

export const DEFAULT_SHOP: Shop = {
  name: "My shop",
  limits: DEFAULT_LIMITS,
  house: DEFAULT_HOUSE,
  machines: [],
  instruments: [],
};

/**
 * A shop written by an earlier version, with what it did not know yet at its default. What is wrong with it stays wrong:
 * the schema looks at it afterwards.
 */
export function liftShop(old: unknown): unknown {
  if (typeof old !== "object" || old === null) return old;
  const given = old as Partial<Record<keyof Shop, unknown>>;
  const over = (defaults: object, value: unknown) => (isObject(value) ? { ...defaults, ...value } : value);
  return {
    ...given,
    limits: over(DEFAULT_LIMITS, given.limits),
    house: over(DEFAULT_HOUSE, given.house),
    machines: Array.isArray(given.machines)
      ? given.machines.map((m) => over({ kind: "low-pressure", service: [] }, m))
      : given.machines,
    instruments: given.instruments ?? [],
  };
}

const isObject = (value: unknown): value is object => typeof value === "object" && value !== null && !Array.isArray(value);
