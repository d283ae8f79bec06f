import { line, strictObject } from "./input";

/** Who a car belongs to; kept outside the journal, so that it can be erased. */
export interface Customer {
  readonly name: string;
  readonly contact: string;
}

export const customerSchema = strictObject({
  name: line("The name", 120).defined(),
  contact: line("The contact").defined(),
});
