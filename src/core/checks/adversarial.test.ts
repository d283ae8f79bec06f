import { readFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { BadInput, validate } from "../input";
import { DEFAULT_SHOP, liftShop, type Shop } from "../shop/settings";
import type { VehicleFacts } from "../vehicle";
import { CHECKS, type CheckId, contextOf, type Verdict } from ".";

interface Adversarial {
  readonly name: string;
  readonly check: CheckId;
  readonly input: { readonly record: object; readonly context: { readonly vehicle: VehicleFacts; readonly shop?: object } };
  /** Outcome that must not come: an outcome, "obs:" an observation, "headline:" a part of one */
  readonly not?: readonly string[];
  /** Outcomes that are right */
  readonly want?: readonly string[];
}

const RECORDS = JSON.parse(readFileSync(join(__dirname, "../adversarial/records.json"), "utf8")) as readonly Adversarial[];

/** The verdict, or none where the record is refused at the door. */
function judged({ check, input }: Adversarial): Verdict | undefined {
  try {
    validate(CHECKS[check].fields.schema, input.record);
  } catch (error) {
    if (error instanceof BadInput) return undefined;
    throw error;
  }
  const shop = liftShop({ ...DEFAULT_SHOP, ...input.context.shop }) as Shop;
  return CHECKS[check].judge(input.record, contextOf(input.context.vehicle, shop));
}

describe("records that prove nothing", () => {
  it.each(RECORDS.map((r) => [r.name, r] as const))("%s", (_name, record) => {
    const verdict = judged(record);
    if (record.want) expect(record.want, verdict?.headline).toContain(verdict?.outcome ?? "refused");
    for (const wrong of (verdict && record.not) ?? []) {
      if (wrong.startsWith("headline:")) expect(verdict?.headline).not.toContain(wrong.slice("headline:".length));
      else if (wrong.startsWith("obs:")) expect(verdict?.observation).not.toBe(wrong.slice("obs:".length));
      else expect(verdict?.outcome, verdict?.headline).not.toBe(wrong);
    }
  });
});
