import * as yup from "yup";
import { strictObject } from "../../input";
import { isQuantity, type Quantity, quantitySchema, toSi } from "../../units";
import type { FillSetup } from "../../vehicle";
import { type InstrumentUse, instrumentField, intoField, jointField, jointsField } from "../fields";

/** How an escape showed itself. */
export const ESCAPE_SIGNS = { heard: "Heard", felt: "Felt", soap: "Soap bubbles", smoke: "Smoke" } as const;
export type EscapeSign = keyof typeof ESCAPE_SIGNS;

/** Air let in after the compressor, raised in steps, with what came out where. Pressures are gauge. */
export interface PressureTest extends FillSetup {
  /** The engine's maximum boost, gauge, where somebody knows it */
  readonly maxBoost?: Quantity;
  /** What the regulator's first stage was set to */
  readonly supply?: Quantity;
  /** Ratings of what stands under pressure: adapter and hose, bladder, the weakest part */
  readonly ratings: { readonly tool: Quantity; readonly bladder?: Quantity; readonly part?: Quantity };
  /** The stops on the way up, each held and listened at */
  readonly steps: readonly { readonly pressure: Quantity }[];
  /** What came out where, and the pressure it began at */
  readonly escapes: readonly { readonly joint: string; readonly sign: EscapeSign; readonly from: Quantity }[];
  /** Every joint was listened to, felt and soaped at the last stop */
  readonly everywhere: boolean;
  /** Air it took to hold the last stop, or the time until it stood there, s */
  readonly flow?: Quantity;
  readonly fillTime?: number;
  /** Where the crank stood: flow and time compare only at one position */
  readonly crank?: string;
  readonly instrument: InstrumentUse;
}

/** A list, whatever came in its place: what is no list is refused by its own field. */
const listOf = <T>(raw: unknown): readonly T[] => (Array.isArray(raw) ? raw : []);

const rating = quantitySchema("testPressure");
const step = strictObject({ pressure: quantitySchema("testPressure").required("Type the pressure of this stop") });

export const pressureTestSchema = strictObject({
  entry: jointField.required("Say where the air goes in"),
  into: intoField,
  blocked: jointsField,
  heldOpen: jointsField,
  maxBoost: quantitySchema("boost").optional().default(undefined),
  supply: quantitySchema("supplyPressure").optional().default(undefined),
  ratings: strictObject({
    tool: rating.required("Type what adapter and hose are rated for"),
    bladder: rating.optional().default(undefined),
    part: rating.optional().default(undefined),
  }).required(),
  steps: yup
    .array()
    .of(step.required())
    .min(1, "Type the pressure of the first stop")
    .max(30, "More than 30 stops: keep those where something changed")
    .required()
    .test("rising", "Each stop lies above the one before: type them on the way up", (list) =>
      listOf<PressureTest["steps"][number]>(list).every((s, i) => {
        const before = list?.[i - 1] as typeof s | undefined;
        return !before || !readable(s) || !readable(before) || toSi(s.pressure) > toSi(before.pressure);
      }),
    ),
  escapes: yup
    .array()
    .of(
      strictObject({
        joint: jointField,
        sign: yup
          .mixed<EscapeSign>()
          .oneOf(Object.keys(ESCAPE_SIGNS) as EscapeSign[])
          .required("Say how it showed"),
        from: quantitySchema("testPressure").required("Type the pressure it began at"),
      }).required(),
    )
    .max(60)
    .required(),
  everywhere: yup.boolean().required(),
  flow: quantitySchema("testFlow").optional().default(undefined),
  fillTime: yup.number().typeError("The time is a number of seconds").min(0).max(3600).optional(),
  crank: yup.string().max(60, "The crank's position is too long: keep it under 60 characters").optional(),
  instrument: instrumentField("pressure").required(),
}).test("begun", "An escape began above the last stop: type the stop, or the pressure it began at", (record) => {
  const { steps, escapes } = (record ?? {}) as { readonly steps?: unknown; readonly escapes?: unknown };
  const last = listOf<PressureTest["steps"][number]>(steps).at(-1);
  if (!last || !readable(last)) return true;
  const top = toSi(last.pressure);
  return listOf<PressureTest["escapes"][number]>(escapes).every((e) => !isQuantity(e?.from) || toSi(e.from) <= top * (1 + 1e-9));
});

const readable = (step: { readonly pressure?: unknown } | undefined): step is { readonly pressure: Quantity } =>
  isQuantity(step?.pressure);
