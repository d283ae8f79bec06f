import {
  type Draft,
  type FormField,
  type FormFields,
  type FormState,
  formOf,
  getIn,
  type InstrumentUse,
  resolve,
  setIn,
  type TypedGauge,
  typedValue,
} from "../form";
import type { Instrument } from "../shop/settings";
import { isQuantity, type Quantity } from "../units";
import type { Joint } from "../vehicle";
import type { CheckContext } from "./context";
import type { RequiredSize } from "./required-size";

/** Facts that the form of a check is not asked for, because the job or the shop has it already. */
export interface CheckFacts {
  readonly context: CheckContext;
  readonly instruments: readonly Instrument[];
  /** Of the bay, as the conditions have it */
  readonly ambient?: Quantity;
  readonly temperature?: Quantity;
  /** Whether the engine is warm; undefined where nobody said */
  readonly warm?: boolean;
  /** The leak that a check of the vapour system is held against */
  readonly required?: RequiredSize;
  /** Percent of the tank, as it was typed last in this job */
  readonly fuelLevel?: number;
  /** Joints that the check can be done at, the likeliest first */
  readonly places: readonly Joint[];
  /** The one it is proposed at, and why */
  readonly place?: {
    readonly id: string;
    readonly because: string;
    /** It was opened for this place, and is not only proposed at it */
    readonly wanted?: true;
  };
  /** Records of the same kind that failed and must be shown good: their set-up is proposed at their place */
  readonly again?: readonly object[];
  /** The last record of the same kind that was made on this device, on whatever car: what its equipment was stands again */
  readonly lastUse?: object;
}

/** Names that the place or way in has in a check's record. */
const PLACES = ["joint", "entry"] as const;

/** The record whose set-up is taken again: the one that failed at the place that stands in the form. */
const failedHere = ({ known, value }: FormState<CheckFacts>): object | undefined =>
  known.again?.findLast((record) =>
    PLACES.every((name) => {
      const at = getIn(record, name);
      return at === undefined || at === value(name);
    }),
  );

/** Whether a value can be what a piece of equipment is: a rating, a kind of it, or a gauge. What a damaged device gave back is none. */
function isEquipment(field: FormField<CheckFacts>, value: unknown, state: FormState<CheckFacts>): boolean {
  const { type } = field;
  if (type === "quantity") return isQuantity(value);
  if (type === "choice") return resolve(field.options, state).some(([id]) => id === value);
  const { name, division, zero, end } = (value ?? {}) as Partial<InstrumentUse>;
  return (
    type === "instrument" &&
    typeof name === "string" &&
    isQuantity(division) &&
    isQuantity(zero) &&
    (end === undefined || isQuantity(end))
  );
}

/** The parts of a record that are the shop's own equipment; undefined where it has none. */
export function equipmentOf(form: { readonly fields: FormFields<never> }, record: object): object | undefined {
  let equipment: Draft | undefined;
  for (const [name, field] of Object.entries(form.fields)) {
    const at = field.at ?? name;
    const value = field.equipment ? getIn(record, at) : undefined;
    if (value !== undefined) equipment = setIn(equipment ?? {}, at, value);
  }
  return equipment;
}

/** A record's value as its field holds it. What a gauge showed with nothing on it was seen then, and is looked at anew. */
function typedThen(field: FormField<CheckFacts>, name: string, record: object, state: FormState<CheckFacts>): unknown {
  const value = getIn(record, field.at ?? name);
  if (value === undefined) return undefined;
  const typed = typedValue(field, value, state);
  if (field.type !== "instrument") return typed;
  const { zero: _, ...gauge } = typed as TypedGauge;
  return gauge;
}

/**
 * A field of the set-up, which holds what it held where the check failed until somebody says otherwise; of the shop's
 * equipment, what it was on the last car.
 */
function recalled(name: string, field: FormField<CheckFacts>): FormField<CheckFacts> {
  if (!field.setUp) return field;
  const asItFailed = (state: FormState<CheckFacts>) => {
    const then = failedHere(state);
    return then && typedThen(field, name, then, state);
  };
  const asLast = (state: FormState<CheckFacts>) => {
    const last = field.equipment && state.known.lastUse;
    return last && isEquipment(field, getIn(last, field.at ?? name), state) ? typedThen(field, name, last, state) : undefined;
  };
  return {
    ...field,
    defaultValue: (state: FormState<CheckFacts>) => asItFailed(state) ?? asLast(state) ?? field.defaultValue?.(state),
    hint: (state: FormState<CheckFacts>) => {
      const hint = resolve(field.hint, state);
      const last = asItFailed(state) === undefined ? asLast(state) : undefined;
      if (last === undefined || field.type === "instrument" || state.value(name) !== last) return hint;
      return [hint, "As on the last car here"].filter(Boolean).join(". ");
    },
  } as FormField<CheckFacts>;
}

const withSetUp = <F extends { readonly fields: FormFields<CheckFacts> }>(form: F): F => ({
  ...form,
  fields: Object.fromEntries(Object.entries(form.fields).map(([name, field]) => [name, recalled(name, field)])),
});

/** The form of a check's record. */
export const checkForm: ReturnType<typeof formOf<CheckFacts>> = (set, spec) => withSetUp(formOf<CheckFacts>()(set, spec));
