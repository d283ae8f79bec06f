import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { defineConfig } from "@playwright/test";
import { chromiumPath } from "./scripts/chromium.mjs";

const port = 4317;
// One database for the whole run, made anew each time; whoever names it has filled it already.
const filled = process.env.PELOTA_TEST_DATA !== undefined;
process.env.PELOTA_TEST_DATA ??= mkdtempSync(join(tmpdir(), "pelota-e2e-"));

export default defineConfig({
  testDir: "e2e",
  // Files run side by side on one database: every test opens jobs of its own or only looks at the demo's.
  // One more than the cores: a test waits for its page and its server a quarter of its time.
  workers: 3,
  // A machine may be slow; a test that fails once has failed.
  timeout: 180_000,
  expect: { timeout: 30_000 },
  retries: 0,
  reporter: process.env.PLAYWRIGHT_JSON_OUTPUT_NAME ? [["./e2e/reporter.ts"], ["json"]] : [["./e2e/reporter.ts"]],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    screenshot: "only-on-failure",
    // Drawing what moves takes a core of its own without a graphics card; the one test of motion asks for it.
    contextOptions: { reducedMotion: "reduce" },
    // What a test does to the network must reach the page: a worker in between would answer for it.
    serviceWorkers: "block",
    launchOptions: {
      executablePath: chromiumPath(),
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
  webServer: {
    command: `${filled ? "" : "node_modules/.bin/tsx demo/fill.ts && "}node scripts/start.mjs --port ${port}`,
    url: `http://127.0.0.1:${port}/api/v1/people`,
    env: { PELOTA_DATA: process.env.PELOTA_TEST_DATA, PELOTA_KEEP_BACKUPS: "0" },
    timeout: 60_000,
    stdout: "pipe",
    stderr: "pipe",
  },
});
