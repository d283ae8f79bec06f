import * as yup from "yup";
import { strictObject } from "../../input";
import { type Quantity, quantitySchema } from "../../units";
import { jointField, oneOfField, rpmField } from "../fields";

export const SEATS = { holds: "Nothing comes through", passes: "Smoke comes through", "not-tried": "Not tried" } as const;
export type Seat = keyof typeof SEATS;
/** Where smoke was looked for behind the shut valve: at the tail some comes by valves that overlap, whatever the EGR does. */
export const WATCHED = {
  pipe: "At its own pipe, opened behind it",
  "tail-turned": "At the tail, the same after the crank was turned",
  tail: "At the tail",
} as const;
export type Watched = keyof typeof WATCHED;
export const COOLERS = {
  holds: "Holds its pressure",
  loses: "Loses coolant or pressure",
  "not-tried": "Not tried",
  none: "No cooler",
} as const;
export type Cooler = keyof typeof COOLERS;

/** What meter and manifold show at one command, the speed held. */
export interface EgrReading {
  readonly rpm: number;
  readonly maf?: Quantity;
  readonly map?: Quantity;
}

/** An EGR valve commanded shut and open at one speed, its seat and its cooler tried. */
export interface EgrRecord {
  readonly joint: string;
  readonly shut?: EgrReading;
  readonly open?: EgrReading;
  /** Smoke or air from the manifold side, valve shut, the exhaust path watched */
  readonly seat: Seat;
  /** Where that was watched; not said, it was the tail */
  readonly watched?: Watched;
  readonly cooler: Cooler;
  readonly warm: boolean;
}

const reading = strictObject({
  rpm: rpmField,
  maf: quantitySchema("mafFlow").optional().default(undefined),
  map: quantitySchema("manifold").optional().default(undefined),
})
  .test("read", "Type the air meter, the manifold pressure, or both: a duty without a flow says nothing", (p) => {
    const { maf, map } = (p ?? {}) as { maf?: unknown; map?: unknown };
    return p === undefined || maf !== undefined || map !== undefined;
  })
  .optional()
  .default(undefined);

export const egrSchema = strictObject({
  joint: jointField.required("Say which valve"),
  shut: reading,
  open: reading,
  seat: oneOfField("The seat", Object.keys(SEATS) as Seat[]),
  watched: yup
    .string()
    .oneOf(Object.keys(WATCHED) as Watched[], "Where it was watched is one of pipe, tail-turned, tail")
    .optional(),
  cooler: oneOfField("The cooler", Object.keys(COOLERS) as Cooler[]),
  warm: yup.boolean().required("Say whether the engine is warm"),
}).test("both", "Read it shut and open at one speed: one alone says nothing of the valve", (r) => {
  const { shut, open } = (r ?? {}) as { shut?: unknown; open?: unknown };
  return (shut === undefined) === (open === undefined);
});
