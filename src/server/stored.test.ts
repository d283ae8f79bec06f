import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import yauzl from "yauzl";
import { CHECKS, type CheckId, readingsOf } from "@/core/checks";
import { contextOf } from "@/core/core.fixture";
import type { Form } from "@/core/form";
import { draftOfToday, toRecord } from "@/core/form";
import * as journal from "@/core/journal";
import {
  foldJob,
  type JobState,
  type Kept,
  nextBatch,
  parseJobFile,
  parseQueueFile,
  readingsCsv,
  shown,
  validateBody,
} from "@/core/journal";
import { SHOP } from "@/core/journal/journal.fixture";
import type { VehicleRecord } from "@/core/vehicle";

// What a build of December 2026 left in shops and on devices: whatever it is made of since, it reads as it did.
const STORED = "src/server/fixtures/stored";
const json = (name: string) => JSON.parse(readFileSync(`${STORED}/${name}.json`, "utf8"));
const NOW = Date.parse("2026-12-01T00:00:00Z");

/** Wording of a job, as far as it must not change with the shape of the code. */
const saidOf = ({ status, checks, proof, suspects, offCar, findings, repairs }: JobState) => ({
  status,
  checks: checks.map((c) => [c.check, c.verdict.outcome, c.verdict.headline, c.verdict.measures.map((m) => m.value.value)]),
  owed: proof.owed.map((o) => o.atom),
  suspects: suspects.slice(0, 5).map((s) => s.cause.id),
  offCar: offCar.length,
  findings: findings.length,
  repairs: repairs.length,
});

async function jobFiles(): Promise<string[]> {
  const zip = await yauzl.openPromise(`${STORED}/shop.zip`);
  const found: string[] = [];
  for await (const entry of zip.eachEntry()) {
    if (!entry.fileName.startsWith("jobs/")) continue;
    const stream = await zip.openReadStreamPromise(entry);
    const parts: Buffer[] = [];
    for await (const part of stream) parts.push(part as Buffer);
    found.push(Buffer.concat(parts).toString());
  }
  return found;
}

it("every job of its archive reads and says what it said", async () => {
  const said: Record<string, unknown> = {};
  for (const text of await jobFiles()) {
    const file = parseJobFile(text);
    said[file.jobId] = saidOf(foldJob(file.entries, file.shop, NOW));
  }
  expect(Object.keys(said)).toHaveLength(39);
  await expect(JSON.stringify(said, null, 1)).toMatchFileSnapshot(`../../${STORED}/said.json`);
});

it("what was read is listed as it was", async () => {
  const digest = (text: string) => createHash("sha256").update(text).digest("hex");
  const listed: Record<string, string> = {};
  for (const text of await jobFiles()) {
    const file = parseJobFile(text);
    listed[file.jobId] = digest(readingsCsv(foldJob(file.entries, file.shop, NOW)));
  }
  for (const [kind, { reads }] of Object.entries(json("drafts").typed as Record<string, StoredDraft>))
    if (reads?.record) listed[kind] = digest(JSON.stringify(readingsOf(kind as CheckId, reads.record)));
  expect(listed).toEqual(json("readings"));
});

it("what waited on a device goes out as it is, from its outbox and from its file", () => {
  const kept = json("outbox") as Kept[];
  for (const { kind, body, v } of shown(kept)) validateBody(kind, body, v);
  expect(nextBatch(kept, "tab", NOW).map((k) => k.entry)).toEqual(
    kept.filter((k) => k.batch === kept[0]?.batch).map((k) => k.entry),
  );
  expect(parseQueueFile(JSON.stringify(json("queue"))).entries).toEqual(shown(kept));
});

interface StoredDraft {
  readonly facts: VehicleRecord;
  readonly draft: Record<string, unknown>;
  readonly known?: object;
  readonly reads?: { readonly record?: object; readonly errors?: readonly string[] };
}

/** Forms of entries, with what was known as a recorded entry was laid into each. */
const entryForm = (kind: string, facts: VehicleRecord | undefined): readonly [unknown, unknown] => {
  const car = facts && contextOf(facts);
  const forms: Record<string, readonly [unknown, unknown]> = {
    story: [journal.storyForm, { story: undefined }],
    codes: [journal.codesForm, { codes: [] }],
    conditions: [journal.conditionsForm, { conditions: undefined }],
    "complaint-tried": [journal.complaintTriedForm, undefined],
    drive: [journal.driveForm, undefined],
    readiness: [journal.readinessForm, {}],
    handover: [journal.handoverForm, { decidedOn: 3, conditional: false }],
    outcome: [journal.outcomeForm, undefined],
    repair: [journal.repairForm, journal.repairFacts({ findings: [] }, car)],
    finding: [journal.findingForm, car && journal.findingFacts({ checks: [], suspects: [] }, car)],
    displaced: [journal.displacedForm, journal.displacedFacts(car?.layout)],
    vehicle: [journal.vehicleForm, { vehicle: undefined, by: "Maren" }],
  };
  return forms[kind] ?? [undefined, undefined];
};

/** A record as it was read then; a no that nobody gave is left out now. */
const withoutSilence = (then: object, now: object | undefined) =>
  Object.fromEntries(Object.entries(then).filter(([name, value]) => value !== false || (now !== undefined && name in now)));

const read = (form: unknown, { draft, reads }: StoredDraft, known: unknown) => {
  const { record, errors } = toRecord(form as Form<object, unknown>, draftOfToday(form as Form<object, unknown>, draft), known);
  // A yes that nobody gave stood for a no: it is asked for now.
  const unsaid = (errors ?? []).filter(
    ({ field, missing }) => missing && (reads?.record as Record<string, unknown>)?.[field] === false,
  );
  if (reads?.record && unsaid.length > 0) expect(errors).toEqual(unsaid);
  else if (reads?.record) expect({ record, errors }).toEqual({ record: withoutSilence(reads.record, record), errors: undefined });
  // What was asked for then is asked for still; what was taken for said then may be asked for now.
  else expect(errors?.map((f) => f.field)).toEqual(expect.arrayContaining([...(reads?.errors ?? [])]));
};

it.each(Object.entries(json("drafts").typed as Record<string, StoredDraft>).filter(([, d]) => d.reads))(
  "a half-typed %s is there again",
  (kind, stored) => read(CHECKS[kind as CheckId].form, stored, { ...stored.known, context: contextOf(stored.facts) }),
);

it.each((json("drafts").laid as (StoredDraft & { form: string })[]).map((d, i) => [`${d.form} (${i})`, d] as const))(
  "what was being corrected is there again: %s",
  (name, stored) => {
    const [kind = "", check] = name.replace(/ \(\d+\)$/, "").split(":");
    if (check === undefined) return read(...(([form, known]) => [form, stored, known] as const)(entryForm(kind, stored.facts)));
    const context = contextOf(stored.facts);
    return read(CHECKS[check as CheckId].form, stored, { context, instruments: SHOP.instruments, places: context.layout.joints });
  },
);
