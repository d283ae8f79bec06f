// Lint, types, unit tests, build, end-to-end tests; ends with "N passed, N failed".
import { spawn } from "node:child_process";
import { existsSync, mkdtempSync, openSync, readFileSync, rmSync } from "node:fs";
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

// Lint and types need nothing that is compiled.
count(tried("npx", ["biome", "ci", "."]));
count(tried("npx", ["knip"]));
count(tried("npx", ["next", "typegen"]) && tried("npx", ["tsc", "--noEmit", "--checkers", "1"]));
await compiled;

// Unit tests run beside the build: each of them leaves a core idle for half of its time.
const unit = join(folder, "unit.json");
const unitLog = join(folder, "unit.log");
const out = openSync(unitLog, "w");
const units = spawn("npx", ["vitest", "run", "--reporter=default", "--reporter=json", `--outputFile.json=${unit}`], {
  stdio: ["ignore", out, out],
  env: quietEnv,
});
const unitsDone = new Promise((done) => units.on("close", done));
// The jobs that the end-to-end tests look at are made meanwhile, too.
const demo = join(folder, "demo");
const filling = spawn("npx", ["tsx", "demo/fill.ts"], {
  stdio: ["ignore", "ignore", "inherit"],
  env: { ...quietEnv, PELOTA_DATA: demo },
});
const filled = new Promise((done) => filling.on("close", (code) => done(code === 0)));

const built = tried("npx", ["next", "build"]) && tried("node", ["scripts/bundle.mjs"]) && tried("node", ["scripts/offline.mjs"]);
const unitsEnded = await unitsDone;
process.stdout.write(readFileSync(unitLog, "utf8"));
addResults(unit, (report) => {
  const bad = report.numFailedTests + report.numFailedTestSuites - suitesWithFailedTests(report);
  // Nothing failed and still no good end: something broke beside the tests.
  return [report.numPassedTests, bad > 0 || unitsEnded === 0 ? bad : 1];
});
count(built);
count(await filled);
await chromium;
if (!chromiumPath()) console.error("Chromium could not be installed: the end-to-end tests will fail");
if (built) {
  const e2e = join(folder, "e2e.json");
  tried("npx", ["playwright", "test"], { ...quietEnv, PLAYWRIGHT_JSON_OUTPUT_NAME: e2e, PELOTA_TEST_DATA: demo });
  addResults(e2e, (report) => [report.stats.expected, report.stats.unexpected + report.stats.flaky + report.errors.length]);
}
rmSync(folder, { recursive: true, force: true });
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed > 0 ? 1 : 0);

function installChromium() {
  const script = "apt-get update -qq && apt-get install -y -qq chromium-headless-shell";
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
