import { readdirSync, readFileSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { expect, it } from "vitest";

const files = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return files(path);
    return /\.tsx?$/.test(path) && !/\.(test|fixture)\.tsx?$/.test(path) ? [path] : [];
  });

/** Files by the files that they import, types included. */
function imports(): Map<string, string[]> {
  const all = new Set(files("src").map((file) => resolve(file)));
  const found = (path: string) => ["", ".ts", ".tsx", "/index.ts", "/index.tsx"].map((end) => path + end).find((p) => all.has(p));
  return new Map(
    [...all].map((file) => {
      const sources = [...readFileSync(file, "utf8").matchAll(/(?:from|import)\s*\(?\s*"([^"]+)"/g)].map(
        ([, source = ""]) => source,
      );
      const paths = sources.map((source) =>
        source.startsWith("@/") ? resolve("src", source.slice(2)) : source.startsWith(".") ? resolve(dirname(file), source) : "",
      );
      return [file, paths.flatMap((path) => found(path) ?? [])];
    }),
  );
}

/** A way from a file through its imports back to it; undefined where there is none. */
function circle(graph: ReadonlyMap<string, readonly string[]>): string[] | undefined {
  const done = new Set<string>();
  const walk = (file: string, path: readonly string[]): string[] | undefined => {
    const at = path.indexOf(file);
    if (at >= 0) return [...path.slice(at), file];
    if (done.has(file)) return undefined;
    for (const next of graph.get(file) ?? []) {
      const way = walk(next, [...path, file]);
      if (way) return way;
    }
    done.add(file);
    return undefined;
  };
  for (const file of graph.keys()) {
    const way = walk(file, []);
    if (way) return way;
  }
  return undefined;
}

it("no file imports itself by a detour, types included", () => {
  const graph = imports();
  expect(graph.size).toBeGreaterThan(500);
  expect(circle(graph)?.map((file) => file.slice(resolve("src").length + 1))).toBeUndefined();
  expect(
    circle(
      new Map([
        ["a", ["b"]],
        ["b", ["c", "d"]],
        ["c", []],
        ["d", ["a"]],
      ]),
    ),
  ).toEqual(["a", "b", "d", "a"]);
});
