import { type FormField, type FormFields, type FormState, formOf, getIn, typedValue } from "../form";
import type { Instrument } from "../shop/settings";
import type { Quantity } from "../units";
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

/** A field of the set-up, which holds what it held where the check failed until somebody says otherwise. */
const asItFailed = (name: string, field: FormField<CheckFacts>): FormField<CheckFacts> =>
  field.setUp
    ? ({
        ...field,
        defaultValue: (state: FormState<CheckFacts>) => {
          const then = failedHere(state);
          const value = then && getIn(then, field.at ?? name);
          return value === undefined ? field.defaultValue?.(state) : typedValue(field, value, state);
        },
      } as FormField<CheckFacts>)
    : field;

const withSetUp = <F extends { readonly fields: FormFields<CheckFacts> }>(form: F): F => ({
  ...form,
  fields: Object.fromEntries(Object.entries(form.fields).map(([name, field]) => [name, asItFailed(name, field)])),
});

/** The form of a check's record. */
export const checkForm: ReturnType<typeof formOf<CheckFacts>> = (set, spec) => withSetUp(formOf<CheckFacts>()(set, spec));
