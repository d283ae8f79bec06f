import * as yup from "yup";
import { type Field, fields, formOf, secret } from "../form";

const RUNS = "01234567890 09876543210";
/** Of all the same digit, or a row of them up or down: what is tried first. */
const isGuessed = (pin: string) => /^(\d)\1*$/.test(pin) || RUNS.includes(pin);

/** A PIN that is chosen: 4 to 8 digits, and none that is tried first. */
export const newPinSchema = yup
  .string()
  .matches(/^\d{4,8}$/, "A PIN is 4 to 8 digits")
  .test(
    "guessed",
    "That PIN is the first that anybody tries: no row of digits, and not all the same",
    (pin) => pin === undefined || !isGuessed(pin),
  )
  .required("Choose a PIN of 4 to 8 digits");

/** A PIN that is given. */
export const pinSchema = yup
  .string()
  .matches(/^\d{4,8}$/, "A PIN is 4 to 8 digits")
  .required("Type your PIN");

export const newPinField = (label: string): Field<string> =>
  secret("pin", newPinSchema, { label, hint: "4 to 8 digits, not in a row and not all the same" });

/** Another PIN for somebody who has forgotten theirs. */
export const newPinForm = formOf<undefined>()(fields({ pin: newPinField("New PIN (they type it)") }));

/** The PIN one signs in with, on the pad. */
export const pinForm = formOf<{ readonly name: string }>()(fields({ pin: secret("pad", pinSchema, { label: "PIN" }) }), {
  ask: { pin: { label: ({ known }) => `PIN of ${known.name}` } },
});

/** The old PIN, then the one that takes its place. */
export const ownPinForm = formOf<undefined>()(
  fields({
    pin: secret("pad", pinSchema, { label: "Your PIN as it is" }),
    newPin: secret("pad", newPinSchema, { label: "The new one, 4 to 8 digits" }),
  }),
);
