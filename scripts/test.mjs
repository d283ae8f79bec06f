// Lint, types, unit tests, build, end-to-end tests; ends with "N passed, N failed".
import { spawn } from "node:child_process";
import { existsSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromiumPath, HEADLESS_SHELL } from "./chromium.mjs";
import { install, quietEnv, tried } from "./run.mjs";

// Chromium comes from Debian while npm installs: it is wanted only by the end-to-end tests.
const chromium = existsSync(HEADLESS_SHELL) ? Promise.resolve() : installChromium();
const compiled = install();

let passed = 0;
let failed = 0;
const folder = mkdtempSync(join(tmpdir(), "pelota-test-"));
const count = (ok) => (ok ? passed++ : failed++);

// Lint, types and build need nothing that is compiled: meanwhile the other core compiles.
const linted = Promise.all([ran("biome", ["ci", "."]), ran("knip", [])]);
count(tried("next", ["typegen"]) && (await ran("tsc", ["--noEmit", "--checkers", "1"])));
for (const ok of await linted) count(ok);
const building = build();

await compiled;
// The jobs that the end-to-end tests look at are made meanwhile, too.
const demo = join(folder, "demo");
const filling = ran("tsx", ["demo/fill.ts"], { ...quietEnv, PELOTA_DATA: demo });
const unit = join(folder, "unit.json");
const unitsOk = await ran("vitest", ["run", "--reporter=dot", "--reporter=json", `--outputFile.json=${unit}`], {
  ...quietEnv,
  // A dot a test, and no more than a dot.
  NO_COLOR: "1",
});
addResults(unit, (report) => {
  const bad = report.numFailedTests + report.numFailedTestSuites - suitesWithFailedTests(report);
  // Nothing failed and still no good end: something broke beside the tests.
  return [report.numPassedTests, bad > 0 || unitsOk ? bad : 1];
});
const built = await building;
count(built);
count(await filling);
await chromium;
if (!chromiumPath()) console.error("Chromium could not be installed: the end-to-end tests will fail");
if (built) {
  const e2e = join(folder, "e2e.json");
  tried("playwright", ["test"], { ...quietEnv, PLAYWRIGHT_JSON_OUTPUT_NAME: e2e, PELOTA_TEST_DATA: demo });
  addResults(e2e, (report) => [report.stats.expected, report.stats.unexpected + report.stats.flaky + report.errors.length]);
}
rmSync(folder, { recursive: true, force: true });
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed > 0 ? 1 : 0);

async function build() {
  for (const [command, ...args] of [
    ["next", "build"],
    ["node", "scripts/bundle.mjs"],
    ["node", "scripts/offline.mjs"],
  ])
    if (!(await ran(command, args))) return false;
  return true;
}

/** Runs a command beside others; what it said is shown when it has ended, in one piece. @returns whether it succeeded. */
function ran(command, args, env = quietEnv) {
  const child = spawn(command, args, { stdio: ["ignore", "pipe", "pipe"], env });
  const said = [];
  for (const stream of [child.stdout, child.stderr]) stream.on("data", (part) => said.push(part));
  return new Promise((done) => {
    child.on("error", () => done(false));
    child.on("close", (code) => {
      process.stdout.write(Buffer.concat(said));
      done(code === 0);
    });
  });
}

/** What Debian recommends beside it are printers and directories, a hundred packages that no test looks at. */
function installChromium() {
  const script = "apt-get update -qq && apt-get install -y -qq --no-install-recommends chromium-headless-shell fonts-liberation";
  const [command, ...args] = process.getuid?.() === 0 ? ["sh", "-c", script] : ["sudo", "sh", "-c", script];
  const apt = spawn(command, args, { stdio: ["ignore", "ignore", "inherit"], env: quietEnv });
  return new Promise((done) => {
    apt.on("error", done);
    apt.on("close", done);
  });
}

function addResults(file, read) {
  try {
    const [good, bad] = read(JSON.parse(readFileSync(file, "utf8")));
    passed += good;
    failed += bad;
  } catch {
    // A runner that leaves no report has failed as a whole.
    failed++;
  }
}

/** A suite that failed through its tests is counted by them already. */
function suitesWithFailedTests(report) {
  return report.testResults.reduce((n, file) => n + suitesOf(file.assertionResults), 0);
}

function suitesOf(tests) {
  const paths = tests
    .filter((t) => t.status === "failed")
    .flatMap((t) => t.ancestorTitles.map((_, i) => t.ancestorTitles.slice(0, i + 1).join("\n")));
  return new Set(paths).size + (tests.some((t) => t.status === "failed") ? 1 : 0);
}
