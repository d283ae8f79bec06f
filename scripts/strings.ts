/**
 * Every string that a person may read, by the file it stands in: `npx tsx scripts/strings.ts [part of a path]`. What is
 * code alone is left out: imports, classes, keys, ids.
 */
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { parseSync } from "oxc-parser";

export interface Shown {
  readonly file: string;
  readonly line: number;
  readonly text: string;
}

/** A node of the syntax tree, as ESTree has it. */
interface Syntax {
  readonly type: string;
  readonly start: number;
  readonly [key: string]: unknown;
}

/** Attributes whose strings are never read by a person. */
const CODE_ATTRIBUTES: readonly string[] = [
  "className",
  "look",
  "tone",
  "as",
  "name",
  "type",
  "inputMode",
  "autoComplete",
  "href",
  "id",
];
const CODE: readonly string[] = [
  "ImportDeclaration",
  "ExportAllDeclaration",
  "ImportExpression",
  "TSLiteralType",
  "TSTypeAnnotation",
];

/** Words as opposed to an id: several words, or a capital that begins one. */
const isWords = (text: string): boolean => /[A-Za-zà-ÿ]{2,}[,:.;]? \S/.test(text) || /^[A-Z][a-zà-ÿ]+[a-zà-ÿ .:…]*$/.test(text);

function textOf(node: Syntax): string | undefined {
  if (node.type === "JSXText" || node.type === "Literal") return typeof node.value === "string" ? node.value : undefined;
  if (node.type !== "TemplateLiteral") return undefined;
  return (node.quasis as { value: { cooked: string } }[]).map((q) => q.value.cooked).join("…");
}

const isSyntax = (value: unknown): value is Syntax => typeof value === "object" && value !== null && "type" in value;

function* stringsOf(node: Syntax): Generator<readonly [at: number, text: string]> {
  if (CODE.includes(node.type)) return;
  if (node.type === "JSXAttribute" && CODE_ATTRIBUTES.includes((node.name as { name: string }).name)) return;
  const text = textOf(node)?.replace(/\s+/g, " ").trim();
  if (text && isWords(text)) yield [node.start, text];
  for (const [key, value] of Object.entries(node)) {
    if (node.type === "Property" && key === "key") continue;
    for (const child of Array.isArray(value) ? value : [value]) if (isSyntax(child)) yield* stringsOf(child);
  }
}

const files = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return entry.name === "migrations" || entry.name === "fixtures" ? [] : files(path);
    return /\.tsx?$/.test(entry.name) && !/\.(test|fixture)\.tsx?$/.test(entry.name) ? [path] : [];
  });

/** @param within part of a path. */
export const shownStrings = (within = ""): Shown[] =>
  files("src")
    .filter((file) => file.includes(within))
    .sort()
    .flatMap((file) => {
      const source = readFileSync(file, "utf8");
      const line = (at: number) => source.slice(0, at).split("\n").length;
      return [...stringsOf(parseSync(file, source).program as unknown as Syntax)].map(([at, text]) => ({
        file,
        line: line(at),
        text,
      }));
    });

if (process.argv[1]?.endsWith("strings.ts")) {
  let file = "";
  for (const s of shownStrings(process.argv[2])) {
    if (s.file !== file) console.log(`\n${s.file}`);
    file = s.file;
    console.log(`  ${s.line}: ${s.text}`);
  }
}
