import { readFileSync } from "node:fs";
import type { VehicleRecord } from "../vehicle";
import type { CheckId } from "./ids";

/** The example that each check brings with it: a record, and the car it was read on. */
export function exampleOf(id: CheckId): { readonly record: object; readonly vehicle: VehicleRecord } {
  const { input } = JSON.parse(readFileSync(`docs/examples/judge-${id}.json`, "utf8"));
  return { record: input.record, vehicle: input.context.vehicle };
}
