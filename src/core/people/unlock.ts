import { fields, formOf, secret, text } from "../form";
import { needed } from "../input";

/** How a device on the network comes in. */
const unlockFields = fields({
  passphrase: secret("passphrase", needed("The passphrase", "Type the shop passphrase", 200), {
    label: "Passphrase, or the code shown on a device that is in",
  }),
  name: text({
    name: "The device's name",
    label: "Name of this device",
    hint: "How this device shows in the shop's list",
    example: "Tablet 2",
    max: 60,
  }).optional(),
});
export const unlockSchema = unlockFields.schema;
export const unlockForm = formOf<undefined>()(unlockFields);
