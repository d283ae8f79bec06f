/** Draws docs/architecture.svg from the imports: which part of the code imports which, and in how many files. */
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join, relative, resolve } from "node:path";
import { fileURLToPath } from "node:url";

const SRC = "src";
/** Where each part stands: column and row, from those who use to what is used. */
const PLACES: Readonly<Record<string, readonly [number, number]>> = {
  app: [0, 1],
  cli: [0, 3],
  screens: [1, 0],
  workers: [1, 1],
  server: [1, 3],
  ui: [2, 0],
  "core/journal": [2, 2],
  "core/suspects": [3, 1],
  "core/checks": [3, 2],
  "core/form": [3, 3],
  "core/faults": [4, 1],
  "core/shop": [4, 3],
  "core/scan-log": [4, 0],
  "core/vehicle": [5, 1],
  "core/gas": [5, 2],
  "core/units": [5, 3],
};

const files = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory() ? files(join(folder, entry.name)) : /\.tsx?$/.test(entry.name) ? [join(folder, entry.name)] : [],
  );
const partOf = (path: string) => Object.keys(PLACES).find((part) => path === part || path.startsWith(`${part}/`));

/** How many files of one part import another. */
function importsBetweenParts(): Map<string, number> {
  const edges = new Map<string, Set<string>>();
  for (const file of files(SRC).filter((f) => !/\.(test|fixture)\.tsx?$/.test(f))) {
    const from = partOf(relative(SRC, file));
    for (const [, source = ""] of readFileSync(file, "utf8").matchAll(/from "((?:@|\.{1,2})\/[^"]+|\.{1,2})"/g)) {
      const path = source.startsWith("@/") ? source.slice(2) : relative(SRC, resolve(dirname(file), source));
      const to = partOf(path);
      if (!from || !to || from === to) continue;
      const edge = `${from} ${to}`;
      edges.set(edge, (edges.get(edge) ?? new Set()).add(file));
    }
  }
  return new Map([...edges].map(([edge, by]) => [edge, by.size] as const).toSorted(([a], [b]) => (a < b ? -1 : 1)));
}

const [W, H, GAP_X, GAP_Y] = [120, 44, 190, 110];
const at = (part: string) => {
  const [column, row] = PLACES[part] as readonly [number, number];
  return { x: 20 + column * GAP_X, y: 20 + row * GAP_Y };
};

export function architectureSvg(): string {
  const lines = [...importsBetweenParts()].map(([edge, count]) => {
    const [from, to] = edge.split(" ").map(at) as [{ x: number; y: number }, { x: number; y: number }];
    const right = to.x > from.x;
    const a = {
      x: from.x + (right ? W : to.x === from.x ? W / 2 : 0),
      y: from.y + (to.x === from.x ? (to.y > from.y ? H : 0) : H / 2),
    };
    const b = {
      x: to.x + (right ? 0 : to.x === from.x ? W / 2 : W),
      y: to.y + (to.x === from.x ? (to.y > from.y ? 0 : H) : H / 2),
    };
    const width = Math.min(4, 0.6 + Math.log2(count + 1) / 2).toFixed(1);
    return `<line x1="${a.x}" y1="${a.y}" x2="${b.x}" y2="${b.y}" stroke="#667" stroke-width="${width}" opacity="0.45" marker-end="url(#tip)"><title>${edge.replace(" ", " imports ")}: ${count} files</title></line>`;
  });
  const boxes = Object.keys(PLACES).map((part) => {
    const { x, y } = at(part);
    const fill = part.startsWith("core/") ? "#e4efe4" : "#eef0f4";
    return `<rect x="${x}" y="${y}" width="${W}" height="${H}" rx="6" fill="${fill}" stroke="#445"/><text x="${x + W / 2}" y="${y + H / 2 + 5}" text-anchor="middle" font-family="sans-serif" font-size="14">${part}</text>`;
  });
  const [width, height] = [40 + 5 * GAP_X + W, 40 + 3 * GAP_Y + H];
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}"><rect width="100%" height="100%" fill="#fff"/><defs><marker id="tip" viewBox="0 0 8 8" refX="8" refY="4" markerWidth="6" markerHeight="6" orient="auto"><path d="M0 0 8 4 0 8Z" fill="#667"/></marker></defs>\n${[...lines, ...boxes].join("\n")}\n</svg>\n`;
}

if (process.argv[1] === fileURLToPath(import.meta.url)) writeFileSync("docs/architecture.svg", architectureSvg());
