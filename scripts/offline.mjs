// Bundles the service worker with the list of everything that the built app is made of, so that the bench opens without the server.
import { mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { dirname, join, relative, sep } from "node:path";
import { fileURLToPath } from "node:url";
import { build } from "esbuild";

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const STATIC = join(root, ".next", "static");

/** Pages that hold no job and no customer: what they show comes from the device. */
const SHELLS = ["/bench", "/away", "/new", "/start", "/reckoner", "/practice"];

const built = readFileSync(join(root, ".next", "BUILD_ID"), "utf8").trim();
const files = readdirSync(STATIC, { recursive: true, withFileTypes: true })
  .filter((entry) => entry.isFile())
  .map((entry) => relative(STATIC, join(entry.parentPath, entry.name)).split(sep).join("/"))
  .toSorted();
const precached = [
  // Their names carry their content's hash, or the build's.
  ...files.map((file) => ({ url: `/_next/static/${file}`, revision: null })),
  ...SHELLS.map((url) => ({ url, revision: built })),
];

const { outputFiles } = await build({
  entryPoints: [join(root, "src/workers/offline.worker.ts")],
  bundle: true,
  write: false,
  minify: true,
  format: "iife",
  target: "es2022",
  tsconfig: join(root, "tsconfig.json"),
  define: { "process.env.NODE_ENV": '"production"', PRECACHED: JSON.stringify(precached) },
  logLevel: "error",
});
const out = join(root, "out", "sw.js");
mkdirSync(dirname(out), { recursive: true });
writeFileSync(`${out}.${process.pid}`, outputFiles[0].contents);
renameSync(`${out}.${process.pid}`, out);
console.log(`Service worker over ${precached.length} files`);
