import { eq } from "drizzle-orm";
import * as yup from "yup";
import { BadInput, validate } from "@/core/journal";
import { CHANNELS, type ChannelId, type Mapping } from "@/core/scan-log";
import { UNIT_IDS } from "@/core/units";
import { type Db, db } from "./db/open";
import { mappings } from "./db/schema";

const choiceSchema = yup
  .object({
    channel: yup
      .mixed<ChannelId>()
      .nullable()
      .defined()
      .test("known", "There is no such channel", (id) => id === null || CHANNELS.some((c) => c.id === id)),
    unit: yup.string().oneOf(UNIT_IDS).optional(),
  })
  .noUnknown()
  .strict();

const checkSignature = (signature: string) => {
  if (!/^[0-9a-f]{32}$/.test(signature)) throw new BadInput("A header signature is 32 hex digits", "signature");
};

/** What was decided for this set of headers, if anything. */
export function readMapping(signature: string, at: Db = db()): Mapping | undefined {
  checkSignature(signature);
  const row = at.select().from(mappings).where(eq(mappings.signature, signature)).get();
  return row ? (JSON.parse(row.mapping) as Mapping) : undefined;
}

/** Remembers the user's mapping for every later log with these headers. */
export function writeMapping(signature: string, input: unknown, at: Db = db()): Mapping {
  checkSignature(signature);
  if (input === null || typeof input !== "object" || Array.isArray(input))
    throw new BadInput("A mapping goes from header to channel");
  for (const [header, choice] of Object.entries(input)) validate(choiceSchema, choice, header);
  const mapping = JSON.stringify(input);
  at.insert(mappings).values({ signature, mapping }).onConflictDoUpdate({ target: mappings.signature, set: { mapping } }).run();
  return input as Mapping;
}
