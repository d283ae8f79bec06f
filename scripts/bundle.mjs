// Bundles the command line, so that it starts at once, and the server's second thread. A bundle older than the code it is made of is made anew.
import { existsSync, mkdirSync, readdirSync, renameSync, statSync, writeFileSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = dirname(dirname(fileURLToPath(import.meta.url)));
export const bundle = join(root, "out", "pelota.mjs");
const SOURCES = ["src/core", "src/cli", "src/server"].map((folder) => join(root, folder));

/** Whether a file is asked for by its name. */
const isEntry = ({ path }) => ["pelota.mjs", "thread.mjs"].includes(basename(path));

/** Whether anything that the bundle is made of changed after it was made. */
function stale() {
  if (!existsSync(bundle)) return true;
  const made = statSync(bundle).mtimeMs;
  const newer = (folder) =>
    readdirSync(folder, { withFileTypes: true }).some((entry) => {
      const path = join(folder, entry.name);
      // A folder's own time tells of files that were taken away.
      return statSync(path).mtimeMs > made || (entry.isDirectory() && newer(path));
    });
  return SOURCES.some(newer) || statSync(join(root, "package-lock.json")).mtimeMs > made;
}

if (stale()) {
  const { build } = await import("esbuild");
  const { outputFiles } = await build({
    entryPoints: { thread: join(root, "src/server/thread.ts"), pelota: join(root, "src/cli/main.ts") },
    outdir: join(root, "out"),
    splitting: true,
    outExtension: { ".js": ".mjs" },
    write: false,
    bundle: true,
    // One brings a library of its own that is no script, the others read files of their own.
    external: ["better-sqlite3", "@react-pdf/renderer", "fontkit"],
    jsx: "automatic",
    minify: true,
    platform: "node",
    format: "esm",
    target: "node20",
    tsconfig: join(root, "tsconfig.json"),
    logLevel: "error",
    // Packages in the older module format ask for Node's own modules by `require`.
    banner: { js: 'import { createRequire } from "node:module"; const require = createRequire(import.meta.url);' },
  });
  // Parts carry their content's hash; the entries come last and at once, so that another process never meets half a bundle.
  mkdirSync(join(root, "out"), { recursive: true });
  for (const file of outputFiles.toSorted((a, b) => Number(isEntry(a)) - Number(isEntry(b)))) {
    writeFileSync(`${file.path}.${process.pid}`, file.contents);
    renameSync(`${file.path}.${process.pid}`, file.path);
  }
}
