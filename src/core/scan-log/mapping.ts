import * as yup from "yup";
import { strictObject } from "../input";
import { UNIT_IDS } from "../units";
import { CHANNELS, type ChannelId } from "./channels";

const choice = strictObject({
  channel: yup
    .mixed<ChannelId>()
    .nullable()
    .defined()
    .test("known", "${path}: no such channel", (id) => id === null || CHANNELS.some((c) => c.id === id)),
  unit: yup.string().oneOf(UNIT_IDS, "${path}: no such unit").optional(),
});

/** The user's choice for each header: header → channel (null: not used) and unit. */
export const mappingSchema = yup.lazy((mapping: unknown) => {
  const isObject = mapping !== null && typeof mapping === "object" && !Array.isArray(mapping);
  return yup
    .object(isObject ? Object.fromEntries(Object.keys(mapping).map((header) => [header, choice.required()])) : {})
    .strict()
    .required("A mapping goes from header to channel");
}) as unknown as yup.Schema<unknown>;
