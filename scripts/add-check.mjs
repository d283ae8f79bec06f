/**
 * Writes the folders of a new check, ready to be filled: `node scripts/add-check.mjs <id> "<Name>"`, as docs/add-a-check.md
 * explains it. What it writes judges one pressure against a limit and compiles.
 */
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";

const pascal = (id) => id.replace(/(^|-)([a-z])/g, (_, __, c) => c.toUpperCase());
const camel = (id) => pascal(id).replace(/^./, (c) => c.toLowerCase());

const FILES = (id, name) => {
  const [Type, value] = [pascal(id), camel(id)];
  return {
    "fields.ts": `import { fields, quantity, type RecordOf } from "../../form";
import { gauge, warm } from "../fields";
import { checkForm } from "../check-form";

/** What is read, and what somebody said: never what it means. */
export const ${value}Fields = fields({
  pressure: quantity("tankPressure", {
    label: "Pressure, gauge",
    units: ["hPa", "kPa", "inH2O"],
    example: "12",
    missing: "Type the pressure",
    column: "${name.toLowerCase()}",
  }),
  warm: warm(),
  instrument: gauge("crankcase"),
});
export type ${Type}Record = RecordOf<typeof ${value}Fields>;

/** When each is asked, where that goes by what is known or by the others. */
export const ${value}Form = checkForm(${value}Fields);
`,
    "simulate.ts": `import { type Bay, gaugeIn, shown } from "../../practice/readers/bay";
import type { ${Type}Record } from "./fields";

/** What a simulated car shows: here a sound one, whatever it has. */
export const simulate = ({ noise }: Bay): ${Type}Record => ({
  pressure: shown(1200 + noise.normal(20), "hPa", 0.1, "gauge"),
  warm: true,
  instrument: gaugeIn("hPa", 0.1),
});
`,
    "rows.ts": `import type { Rows, Saying } from "../../faults";

/** How likely each kind of cause gives what the judge may say, and where that comes from. */
export const rows = {
  "${id}-high": {
    says: "${name.toLowerCase()} too high",
    given: { other: 0.1 },
    reason: "say here which published figure or own measurement this rests on",
  },
  "${id}-good": { says: "${name.toLowerCase()} in its band", given: { other: 0.9 }, reason: "the same, for what is sound" },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
`,
    "judge.ts": `import { toSi } from "../../units";
import type { CheckContext } from "../context";
import { instrumentDoubt } from "../instrument";
import { type Verdict, voidVerdict } from "../verdict";
import type { ${Type}Record } from "./fields";
import type { Seen } from "./rows";

/** The limit, Pa gauge; where it comes from belongs beside it. */
const LIMIT = 2000;

/** Judges one pressure against its limit. First what makes it prove nothing, then what makes it not sure, then the limit. */
export function judge${Type}(record: ${Type}Record, { limits }: CheckContext): Verdict<Seen> {
  if (!record.warm) return voidVerdict("${name} was not read", "the engine was not warm");
  const pressure = toSi(record.pressure);
  const doubt = instrumentDoubt(record.instrument, LIMIT, limits);
  const measures = [{ name: "${name}", value: { ...record.pressure, kind: "gauge" as const }, limit: "20 hPa gauge", limitSource: "own limit" }];
  const base = { measures, zones: [] };
  if (doubt) return { ...base, outcome: "unsure", headline: "The gauge cannot carry a verdict", reasons: [doubt] };
  return pressure > LIMIT
    ? { ...base, outcome: "fail", headline: "${name} is too high", reasons: [], observation: "${id}-high" }
    : { ...base, outcome: "pass", headline: "${name} lies in its band", reasons: [], observation: "${id}-good" };
}
`,
    "index.ts": `import { atomOf, ofEngine, saysOf } from "../claim";
import type { CheckKind } from "../contract";
import { type ${Type}Record, ${value}Fields, ${value}Form } from "./fields";
import { judge${Type} } from "./judge";
import { rows, type Seen } from "./rows";

export * from "./fields";
export * from "./judge";

export const ${value}: CheckKind<${Type}Record, unknown, Seen> = {
  id: "${id}",
  name: "${name}",
  words: { pass: "Works", fail: "Faulty" },
  aim: "What it is for, in a line",
  engine: "warm-running",
  tool: "gauge",
  role: "measures",
  shelf: "running",
  rows,
  candidates: () => [{ name: "${name}", minutes: 5, penalty: 1, outcomes: ["${id}-high", "${id}-good"], why: "why it is worth its minutes" }],
  claims: (_record, verdict, { layout }) =>
    verdict.outcome === "void" ? [] : [ofEngine(layout, atomOf("pressure", "${id}"), "${name.toLowerCase()}", saysOf(verdict.outcome))],
  fields: ${value}Fields,
  form: ${value}Form,
  plan: () => ({ steps: [{ text: "What is done, step by step." }], displaces: [], cautions: ["running-engine"], clocks: [] }),
  judge: judge${Type},
};
`,
    screen: `"use client";

import type { ReactNode } from "react";
import { ${value} } from "@/core/checks/${id}";
import { ${value}Form } from "@/core/checks/${id}/fields";
import { FormFields } from "../../../form/form-field";
import { CheckFrame } from "../check-frame";
import { useCheckForm } from "../use-check-form";

/** The instrument: its live reading first, what is said about it below. */
export function ${Type}Check({ head }: { head: ReactNode }) {
  const check = useCheckForm("${id}", ${value}Form);
  return (
    <CheckFrame check={check} head={head} plan={${value}.plan(check.context, undefined)}>
      <FormFields of={check} names={["pressure", "warm", "instrument"]} />
    </CheckFrame>
  );
}
`,
  };
};

/** A record of it on a car, and the head of what is said of it. */
const EXAMPLE = (id, name) => ({
  input: {
    record: {
      pressure: { value: 12, unit: "hPa", kind: "gauge" },
      warm: true,
      instrument: { name: "Gauge", division: { value: 0.1, unit: "hPa" }, zero: { value: 0, unit: "hPa" } },
    },
    context: {
      vehicle: {
        fuel: "petrol",
        induction: "natural",
        metering: "maf",
        banks: 1,
        displacement: { value: 1.6, unit: "L" },
        fitted: ["booster", "pcv", "evap"],
      },
    },
  },
  output: { check: id, outcome: "pass", headline: `${name} lies in its band` },
});

/** Puts a line after the last one that matches, in the list it belongs to. */
function listed(text, after, line) {
  const all = [...text.matchAll(after)];
  const last = all.at(-1);
  if (!last) throw new Error(`There is no list like ${after}`);
  const end = last.index + last[0].length;
  return text.slice(0, end) + line + text.slice(end);
}

/** @param root where src lies. Writes two folders, an example and a line in each list; throws where the check is there already. */
export function addCheck(id, name, root = ".") {
  if (!/^[a-z]+(-[a-z]+)*$/.test(id)) throw new Error(`"${id}" is no id: small letters, joined by hyphens`);
  if (!name?.trim() || /["\\`]/.test(name)) throw new Error("Give its name, as the shelf shows it, without quotes in it");
  const folder = join(root, "src/core/checks", id);
  if (existsSync(folder)) throw new Error(`${folder} is there already`);
  const { screen, ...core } = FILES(id, name);
  mkdirSync(folder, { recursive: true });
  for (const [file, text] of Object.entries(core)) writeFileSync(join(folder, file), text);
  const screens = join(root, "src/screens/job/checks", id);
  mkdirSync(screens, { recursive: true });
  writeFileSync(join(screens, `${id}-check.tsx`), screen);

  const ids = join(root, "src/core/checks/ids.ts");
  writeFileSync(ids, readFileSync(ids, "utf8").replace(/(CHECK_IDS = \[[^\]]*)(\] as const)/, `$1  "${id}",\n$2`));
  const list = join(root, "src/core/checks/registry.ts");
  let text = readFileSync(list, "utf8");
  text = listed(text, /^import \{ \w+ \} from "\.\/[a-z-]+";\n/gm, `import { ${camel(id)} } from "./${id}";\n`);
  text = text.replace(/(const KINDS = \{[^}]*)(\n\} satisfies)/, `$1\n  "${id}": ${camel(id)},$2`);
  writeFileSync(list, text);

  const table = join(root, "src/screens/job/stations/check.tsx");
  let shown = readFileSync(table, "utf8");
  shown = listed(
    shown,
    /^import \{ \w+Check \} from "\.\.\/checks\/[^"]+";\n/gm,
    `import { ${pascal(id)}Check } from "../checks/${id}/${id}-check";\n`,
  );
  shown = shown.replace(/(const INSTRUMENTS[\s\S]*?)(\n\};)/, `$1\n  "${id}": ${pascal(id)}Check,$2`);
  writeFileSync(table, shown);

  const readers = join(root, "src/core/practice/readers/index.ts");
  let read = listed(
    readFileSync(readers, "utf8"),
    /^import \{ simulate as \w+ \} from "[^"]+";\n/gm,
    `import { simulate as ${camel(id)} } from "../../checks/${id}/simulate";\n`,
  );
  read = read.replace(/(const READERS[\s\S]*?)(\n\};)/, `$1\n  "${id}": ${camel(id)},$2`);
  writeFileSync(readers, read);

  const docs = join(root, "docs");
  writeFileSync(join(docs, `examples/judge-${id}.json`), `${JSON.stringify(EXAMPLE(id, name), null, 2)}\n`);
  const formats = join(docs, "formats.md");
  const line = `- [${id}](examples/judge-${id}.json): What it is for, in a line.\n`;
  writeFileSync(formats, listed(readFileSync(formats, "utf8"), /^- \[[a-z-]+\]\(examples\/judge-.*\n/gm, line));
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? "").href) {
  try {
    addCheck(process.argv[2] ?? "", process.argv[3]);
    console.log(
      `Written: src/core/checks/${process.argv[2]}, src/screens/job/checks/${process.argv[2]}, its example, and a line in ids.ts, registry.ts, the stations' table, the practice readers and docs/formats.md.`,
    );
    console.log("Next: docs/add-a-check.md, step 2. `npx biome check --write src` puts the lines in order.");
  } catch (error) {
    console.error(error.message);
    process.exit(1);
  }
}
