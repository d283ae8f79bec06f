import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { CHECKS, type CheckId } from "@/core/checks";
import { BadInput, validate } from "@/core/input";
import { bodyVersion, type EntryKind, entrySchema, type JournalEntry, validateBody } from "@/core/journal";
import { seededNoise } from "@/core/maths/random";
import { shopSchema } from "@/core/shop/settings";
import { vehicleFields } from "@/core/vehicle";
import { COMMANDS } from "./commands";

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };

/** Values where something else was meant. */
const ODD: readonly Json[] = [
  null,
  true,
  0,
  -1,
  1.5,
  1e308,
  -1e308,
  9e15,
  5e-324,
  "",
  "x",
  "12",
  "__proto__",
  [],
  {},
  [null],
  [[]],
  [{}],
  { value: 1 },
  { value: 1, unit: "furlong" },
  { value: 1, unit: "kPa" },
  { value: null, unit: "kPa" },
  { value: 1e300, unit: "kPa", kind: "gauge" },
  "9999-12-31T23:59:59Z",
];

/** Every place in a value, as the path to it. */
function placesOf(value: Json, path: (string | number)[] = []): (string | number)[][] {
  if (typeof value !== "object" || value === null) return [path];
  const inner = Array.isArray(value) ? value.slice(0, 6).map((v, i) => [i, v] as const) : Object.entries(value);
  return [path, ...inner.flatMap(([key, v]) => placesOf(v as Json, [...path, key]))];
}

/** The value with one to three of its places left out, doubled or holding something else. */
function mutated(value: Json, noise: ReturnType<typeof seededNoise>): { value: Json; told: string } {
  const copy = { root: structuredClone(value) } as { [key: string]: Json };
  const told: string[] = [];
  const any = <T>(list: readonly T[]): T => list[Math.floor(noise.uniform(0, list.length))] as T;
  for (let n = Math.floor(noise.uniform(1, 3.2)); n > 0; n--) {
    const path = ["root", ...any(placesOf(copy.root as Json))];
    const key = path.at(-1) as string;
    let at = copy as Record<string, Json>;
    for (const step of path.slice(0, -1)) at = (at[step] ?? {}) as Record<string, Json>;
    const how = noise.uniform(0, 1);
    if (how < 0.2 && path.length > 1) Array.isArray(at) ? (at as Json[]).splice(Number(key), 1) : delete at[key];
    else if (how < 0.3 && Array.isArray(at)) (at as Json[]).push(...structuredClone(at as Json[]));
    else if (how < 0.45 && typeof at[key] === "number") at[key] = (at[key] as number) * any([-1, 1e-9, 1e3, 1e9, 0]);
    else if (how < 0.5 && typeof at[key] === "object" && at[key] !== null && !Array.isArray(at[key]))
      (at[key] as Record<string, Json>).surplus = 1;
    else at[key] = structuredClone(any(ODD));
    told.push(`${path.join(".")} = ${JSON.stringify(at[key])?.slice(0, 60)}`);
  }
  return { value: copy.root as Json, told: told.join(", ") };
}

/** Everything wrong with how a door answered; undefined where it took the value or said well what was wrong with it. */
async function faultOf(door: (value: Json) => unknown, value: Json): Promise<string | undefined> {
  try {
    await door(value);
    return undefined;
  } catch (error) {
    if (!(error instanceof BadInput)) return `${(error as Error).stack?.split("\n").slice(0, 3).join(" ")}`;
    if (error.message.length < 8 || /undefined|\[object|NaN|Cannot read|is not a function|final value was/.test(error.message))
      return `says "${error.message}"`;
    // Of the whole there is no path; of what stands in it there is.
    const whole = typeof value !== "object" || value === null || Array.isArray(value);
    return error.path === "" && !whole && !/unknown key|not JSON|same number/.test(error.message)
      ? `no path: "${error.message}"`
      : undefined;
  }
}

async function faults(doors: readonly (readonly [string, Json, (value: Json) => unknown])[], times: number, seed: number) {
  const noise = seededNoise(seed);
  const found = new Map<string, string>();
  for (let i = 0; i < times; i++) {
    const [name, example, door] = doors[i % doors.length] as (typeof doors)[number];
    const { value, told } = mutated(example, noise);
    const fault = await faultOf(door, value);
    if (fault) found.set(`${name}: ${fault}`, told);
  }
  return [...found].map(([fault, told]) => `${fault}\n    ${told}`);
}

const documented = [
  ...[...readFileSync("docs/formats.md", "utf8").matchAll(/```json (\S+) in\n([\s\S]*?)```/g)].map(([, name, json]) => ({
    name: name as string,
    value: JSON.parse(json as string) as Json,
  })),
  ...readdirSync("docs/examples").map((file) => ({
    name: file.replace("judge-", "judge:").replace(".json", ""),
    value: (JSON.parse(readFileSync(`docs/examples/${file}`, "utf8")) as { input: Json }).input,
  })),
];
const written = [...readFileSync("docs/formats.md", "utf8").matchAll(/```json entry (\S+)\n([\s\S]*?)```/g)].map(
  ([, kind, json]) => ({ kind: kind as EntryKind, body: JSON.parse(json as string) as Json }),
);
const journals = readdirSync("src/core/adversarial/journals").map(
  (file) =>
    JSON.parse(readFileSync(`src/core/adversarial/journals/${file}`, "utf8")) as { job: { entries: JournalEntry[]; shop: Json } },
);

it.each(written)("docs/formats.md: the body of a $kind is taken", ({ kind, body }) => {
  expect(() => validateBody(kind, body, bodyVersion(kind))).not.toThrow();
});

describe("every door, shown what was never meant", () => {
  it("says what is wrong and where, over the schemas of entries, records, vehicles and shops", async () => {
    const entries = journals.flatMap(({ job }) => job.entries);
    const kinds = [...new Map(entries.map((e) => [`${e.kind} ${(e.body as { check?: string }).check ?? ""}`, e])).values()];
    const { seq, recordedAt, clampedFrom, ...sent } = entries[0] as JournalEntry & { clampedFrom?: unknown };
    const judged = documented.filter((d) => d.name.startsWith("judge:"));
    const record = (d: (typeof judged)[number]) => (d.value as { record: Json }).record;
    expect(
      await faults(
        [
          ...kinds.map((e) => [e.kind, e.body as unknown as Json, (body: Json) => validateBody(e.kind, body, e.v)] as const),
          ...written.map(
            ({ kind, body }) => [kind, body, (value: Json) => validateBody(kind, value, bodyVersion(kind))] as const,
          ),
          ...judged.map((d) => {
            const kind = CHECKS[d.name.slice(6) as CheckId];
            return [d.name, record(d), (value: Json) => validate(kind.fields.schema, value, "record")] as const;
          }),
          ["an entry", sent as unknown as Json, (value: Json) => validate(entrySchema, value)],
          [
            "a vehicle",
            (judged[0] as { value: { context: { vehicle: Json } } } & (typeof judged)[number]).value.context.vehicle,
            (v: Json) => validate(vehicleFields.schema, v),
          ],
          ["a shop", journals[0]?.job.shop as Json, (value: Json) => validate(shopSchema, value)],
        ],
        6_000,
        71,
      ),
    ).toEqual([]);
  }, 120_000);

  it("neither stops nor fails in a command, whatever comes in", async () => {
    expect(
      await faults(
        documented.map(({ name, value }) => {
          const [command, ...args] = name.split(":");
          return [name, value, (v: Json) => COMMANDS[command as string]?.run(JSON.stringify(v), args)] as const;
        }),
        2_000,
        72,
      ),
    ).toEqual([]);
  }, 120_000);
});
