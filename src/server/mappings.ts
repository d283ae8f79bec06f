import { eq } from "drizzle-orm";
import { BadInput, validate } from "@/core/input";
import { type Mapping, mappingSchema } from "@/core/scan-log";
import { type Db, db } from "./db/open";
import { mappings } from "./db/schema";

const checkSignature = (signature: string) => {
  if (!/^[0-9a-f]{32}$/.test(signature)) throw new BadInput("A header signature is 32 hex digits", "signature");
};

/** Column mapping decided for this set of headers, if anything. */
export function readMapping(signature: string, at: Db = db()): Mapping | undefined {
  checkSignature(signature);
  const row = at.select().from(mappings).where(eq(mappings.signature, signature)).get();
  return row ? (JSON.parse(row.mapping) as Mapping) : undefined;
}

/** Remembers the user's mapping for every later log with these headers. */
export function writeMapping(signature: string, input: unknown, at: Db = db()): Mapping {
  checkSignature(signature);
  validate(mappingSchema, input);
  const mapping = JSON.stringify(input);
  at.insert(mappings).values({ signature, mapping }).onConflictDoUpdate({ target: mappings.signature, set: { mapping } }).run();
  return input as Mapping;
}
