/** Measured parts: each part prints its figures and what they aim at; nothing here passes or fails. */
import { spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { appendFigures } from "./appends";
import { attackFigures } from "./attack";
import { boostTrial } from "./boost-trial";
import { clientFigures } from "./clients";
import { comebackTrial } from "./comeback-trial";
import { decayTrial, visibleTrial } from "./decay-trial";
import { endsTrial } from "./ends-trial";
import { filterTrial } from "./filter-trial";
import { foldTimes } from "./fold";
import { gateTrial } from "./gate-trial";
import { judgementPage } from "./judgement-page";
import { largestTimes } from "./largest";
import { logGrammar } from "./log-grammar";
import { writeBigLog } from "./log-import";
import { mutantTrial } from "./mutants";
import { networkTrial } from "./network";
import { onNetworkPart } from "./on-network";
import { outsidePart } from "./outside/outside";
import { scaleFigures } from "./scale";
import { trimsTrial } from "./trims-trial";

const percent = (share: number) => `${(100 * share).toFixed(1)} %`;
const child = (mode: string, file: string) => {
  const done = spawnSync("npx", ["tsx", "bench/log-import.ts", mode, file], { encoding: "utf8" });
  if (done.status !== 0) throw new Error(done.stderr);
  return JSON.parse(done.stdout) as { seconds: number; rows: number; peakMegabytes: number };
};

function logImportPart() {
  console.log("Scan-log import, 1,000,000 rows × 12 columns, each reader in a process of its own");
  const folder = mkdtempSync(join(tmpdir(), "pelota-bench-"));
  const file = join(folder, "big.csv");
  writeBigLog(file, 1_000_000);
  const raw = child("papa", file);
  const ours = child("ours", file);
  rmSync(folder, { recursive: true, force: true });
  for (const [name, run] of [
    ["Papa Parse alone", raw],
    ["typed arrays", ours],
  ] as const) {
    console.log(`  ${name}: ${(run.rows / run.seconds / 1000).toFixed(0)}k rows/s, peak ${run.peakMegabytes.toFixed(0)} MB`);
  }
  console.log(`  share of the raw rate: ${percent(raw.seconds / ours.seconds)} (aim: half), peak under 400 MB`);
}

function logGrammarPart() {
  const grammar = logGrammar(1000, 50_000);
  console.log(
    `Scan logs from a grammar, ${grammar.files}: right ${percent(grammar.right / grammar.files)}, one question ${percent(grammar.oneQuestion / grammar.files)}` +
      ` (together at least 95 %), silently wrong ${percent(grammar.silentlyWrong / grammar.files)} (at most 0.5 %), not read ${percent(grammar.notRead / grammar.files)}`,
  );
  for (const wrong of grammar.wrong) console.log(`    ${wrong}`);
}

function networkPart() {
  const { mass, free, frames, sizes, power, joints } = networkTrial();
  console.log(`Gas network, 20 zones and ${joints} joints, a new one filled every minute`);
  console.log(`  mass over an hour closes to ${mass.toExponential(1)} (aim: 1e-10)`);
  console.log(
    `  free run ${free.toFixed(0)} × real time (aim: 5,000), with a tracer at 60 frames a second ${frames.toFixed(0)} × (aim: 300)`,
  );
  console.log(
    `  ${sizes.map(([zones, times]) => `${zones} zones ${times.toFixed(0)} ×`).join(", ")}: cost grows as zones to the ${power.toFixed(1)} (aim: 2.5)`,
  );
}

function commandPart() {
  spawnSync("node", ["scripts/bundle.mjs"]);
  const used = Array.from({ length: 9 }, () => {
    const shell = spawnSync("bash", ["-c", "node scripts/pelota.mjs orifice <<< '{}' 2>/dev/null; times"], { encoding: "utf8" });
    // `times` ends with what the shell's children used: user, then system.
    const [user = 0, system = 0] = (shell.stdout.trim().split("\n").at(-1) ?? "").split(" ").map((t) => Number(t.slice(2, -1)));
    return user + system;
  }).toSorted((a, b) => a - b);
  console.log(`A small command's own process: ${used[4]?.toFixed(2)} s of CPU, the middle of nine (aim: under 0.25 s)`);
}

function foldPart() {
  console.log("Fold and judging");
  for (const [name, milliseconds] of foldTimes()) console.log(`  ${name}: ${milliseconds.toFixed(1)} ms`);
}

function appendsPart() {
  const appends = appendFigures();
  console.log("Appends, in this process and on the disk of the temporary folder");
  console.log(`  to a job of 500 checks: middle ${appends.middle.toFixed(1)} ms, p99 ${appends.p99.toFixed(1)} ms (aim: 30 ms)`);
  console.log(
    `  a second: to 8 jobs in turn ${appends.eight.toFixed(0)}, to one ${appends.one.toFixed(0)}, bare synced transactions ${appends.bare.toFixed(0)}`,
  );
  console.log(`  board of 20,000 jobs: ${appends.board.toFixed(1)} ms (aim: 50 ms)`);
}

async function clientsPart() {
  if (existsSync(".next/BUILD_ID")) {
    const clients = await clientFigures();
    console.log("The built app over HTTP, eight clients that each send the next entry once the last is answered");
    for (const [name, run] of [
      ["8 jobs", clients.several],
      ["one job", clients.one],
    ] as const) {
      console.log(
        `  on ${name}: ${run.rate.toFixed(0)} a second, ${percent(run.rate / clients.bare)} of ${clients.bare.toFixed(0)} bare synced transactions,` +
          ` p99 ${run.p99.toFixed(0)} ms, worst ${run.worst.toFixed(0)} ms`,
      );
    }
    console.log(`  first page of a job of 500 checks after a start: ${clients.firstPage.toFixed(0)} ms (aim: 300 ms)`);
    for (const [what, { middle, worst }] of Object.entries(clients.waits))
      console.log(
        `  an entry while another asks for ${what}: middle ${middle.toFixed(0)} ms, worst ${worst.toFixed(0)} ms (aim: 100 ms)`,
      );
  } else console.log("The app is not built: nothing to measure over HTTP (npm run build)");
}

async function scalePart() {
  const { searches, bytes, first, pages, memory } = await scaleFigures();
  console.log(`A shop of 20,000 jobs and 1,000,000 entries, ${(bytes / 1e6).toFixed(0)} MB of database (aim: 50 ms a search)`);
  for (const [name, middle, worst] of searches)
    console.log(`  the board's first page of ${name}: middle ${middle.toFixed(1)} ms, worst ${worst.toFixed(1)} ms`);
  if (first !== undefined && memory !== undefined)
    console.log(
      `  the built app: all jobs as a page after a start ${first.toFixed(0)} ms; in memory after six pages ${(memory / 1048576).toFixed(0)} MB (aim: 300 MB)`,
    );
  else console.log("  The app is not built: its memory is not measured (npm run build)");
  for (const [path, middle, worst] of pages ?? [])
    console.log(`  the built app's page ${path}: middle ${middle.toFixed(0)} ms, worst ${worst.toFixed(0)} ms (aim: 150 ms)`);
}

async function attackPart() {
  if (!existsSync(".next/BUILD_ID")) return console.log("The app is not built: nothing to attack (npm run build)");
  console.log("The built app under attack from 127.0.0.1: what another's entry waits, and what is held afterwards");
  for (const { name, p99, worst, before, peak, after, answers } of await attackFigures())
    console.log(
      `  ${name}: p99 ${p99.toFixed(0)} ms, worst ${worst.toFixed(0)} ms (aim: 500 ms); memory ${before.toFixed(0)} MB before, ${peak.toFixed(0)} MB at most, ${after.toFixed(0)} MB a minute after (aim: within 15 %); answered ${answers}`,
    );
}

function largestPart() {
  console.log("The largest records that a door lets in (aim: 20 ms)");
  for (const [name, milliseconds] of largestTimes()) console.log(`  ${name}: ${milliseconds.toFixed(1)} ms`);
}

function trimsPart() {
  console.log("Fuel-trim surveys of engines on the gas network with a known truth, 400 each");
  for (const noise of [
    { trim: 0.008, maf: 0, model: 0 },
    { trim: 0.015, maf: 0.02, model: 0.01 },
  ]) {
    const trial = trimsTrial(400, noise, 41);
    console.log(
      `  trim ${percent(noise.trim)}, meter ${percent(noise.maf)}, model ${percent(noise.model)}: true shape first ${percent(trial.first)},` +
        ` hole in its interval ${percent(trial.covered)}, right where odds ≥ 0.97 ${percent(trial.confident)},` +
        ` 90 % of sizes near 2 mm within ${percent(trial.sizeError)}`,
    );
    for (const [wrong, count] of Object.entries(trial.wrong)) console.log(`    ${wrong}: ${count}`);
  }
}

function decayPart() {
  console.log(
    "Pressure decay on 1000 simulated tanks: wall lag, walls yielding up to 20 %, drift up to 0.3 K with a bend, gauge noise",
  );
  const MARKS: Record<string, number> = {
    "0.01 volume": 0.4,
    "0.02 volume": 0.2,
    "0.01 reference": 0.25,
    "0.02 reference": 0.15,
  };
  for (const reference of [false, true]) {
    for (const inch of [0.01, 0.02]) {
      const trial = decayTrial(1000, inch * 0.0254, reference, 17);
      console.log(
        `  ${inch.toFixed(3)} in, ${reference ? "reference hole, stated volume 0.6 to 1.5 ×" : "by volume, stated within 6 %"}:` +
          ` bias ${percent(trial.bias)}, 90 % within ${percent(trial.spread)} (mark ${percent(MARKS[`${inch} ${reference ? "reference" : "volume"}`] as number)}),` +
          ` interval holds ${percent(trial.covered)}`,
      );
    }
    const visible = visibleTrial(300, reference, 19);
    console.log(
      `  smallest visible ${reference ? "with the reference hole" : "by volume"}: ${(1000 * visible.predicted).toFixed(2)} mm on average;` +
        ` holes of that size told from none ${percent(visible.seen)}, tight tanks called leaking ${percent(visible.falseAlarms)}`,
    );
  }
}

async function judgementPart() {
  const text = await judgementPage(100, 1_300_000);
  writeFileSync("docs/judgement.md", text);
  console.log(text);
}

function boostPart() {
  const trial = boostTrial(500, 1);
  console.log(`Boost from a log, ${trial.logs} simulated logs, petrol and diesel; 500 sound ones and 500 that lose 4 %`);
  console.log(
    `  leak named where 6 % or more is lost ${percent(trial.namedFrom6)} (90 %), at 4 % ${percent(trial.namedAt4)} (60 %); sound called leaking ${percent(trial.falseAlarms)} (at most 1 %)`,
  );
  console.log(
    `  diameters within ±20 % ${percent(trial.within20)} (90 %), intervals that hold the truth ${percent(trial.covered)} (93 %)`,
  );
}

function filterPart() {
  const trial = filterTrial(300, 9);
  console.log(
    `Particulate filter on ${trial.cars} cars at different speeds: answered ${percent(trial.answered)} (85 %), of those right ${percent(trial.right)} (97 %)`,
  );
}

function comebackPart() {
  console.log("Comebacks, 10,000 histories of each kind that are not repaired: called enough (at most 5 %)");
  for (const [kind, share] of Object.entries(comebackTrial(10_000, 17))) console.log(`  ${kind}: ${percent(share)}`);
}

function gatesPart() {
  console.log("10,000 random histories on cars whose faults stand until repaired, each with and without noise in its readings");
  const gates = gateTrial(10_000, 1);
  console.log(
    `  fault stands in ${gates.standing}: closed ${gates.letThroughByLogic} by logic (mark 0), ${percent(gates.letThroughByNoise / gates.standing)} by noise (mark 0.5 %)`,
  );
  console.log(
    `  truly repaired and fully checked ${gates.repaired}: refused ${percent(gates.refused / gates.repaired)} (mark 2 %)`,
  );
  for (const [reason, count] of Object.entries(gates.reasons)) console.log(`    ${count} × ${reason}`);
}

function mutantsPart() {
  const { mutants, refused, changed, declared, undeclared } = mutantTrial();
  console.log(
    `Honest records with one thing made bad: ${mutants}, of which refused at the door ${refused}, verdict changed ${changed}, declared not to bear on it ${declared}, undeclared ${undeclared.length} (mark 0)`,
  );
  for (const one of undeclared) console.log(`    ${one}`);
}

function endsPart() {
  const { cars, notShown, ended, rounds, open } = endsTrial(1_000, 1);
  console.log(
    `${cars} practice cars measured, repaired, and proved by what their jobs name: ${ended} ended of ${cars - notShown} whose fault was shown (mark all), in ${rounds} rounds at most`,
  );
  for (const { code, why } of open) console.log(`    ${code}: ${why}`);
}

/** The small version for the unit tests. */
function trialsPart() {
  const files = ["src/server/server.test.ts", "src/app/api/routes.test.ts"];
  const env = { ...process.env, PELOTA_TRIALS: "full" };
  const done = spawnSync("npx", ["vitest", "run", "--project", "core", "--reporter=verbose", ...files], {
    encoding: "utf8",
    env,
  });
  for (const line of done.stdout.split("\n")) if (/kills|mutated requests|Tests /.test(line)) console.log(line);
}

interface Part {
  /** Speed is measured with nothing else running; what is right or wrong may run side by side */
  readonly alone: boolean;
  readonly run: () => void | Promise<void>;
}

export const PARTS: Readonly<Record<string, Part>> = {
  "log-import": { alone: true, run: logImportPart },
  "log-grammar": { alone: false, run: logGrammarPart },
  command: { alone: true, run: commandPart },
  network: { alone: true, run: networkPart },
  fold: { alone: true, run: foldPart },
  appends: { alone: true, run: appendsPart },
  clients: { alone: true, run: clientsPart },
  scale: { alone: true, run: scalePart },
  attack: { alone: true, run: attackPart },
  largest: { alone: true, run: largestPart },
  trims: { alone: false, run: trimsPart },
  decay: { alone: false, run: decayPart },
  judgement: { alone: false, run: judgementPart },
  outside: { alone: false, run: () => outsidePart() },
  "on-network": { alone: false, run: onNetworkPart },
  boost: { alone: false, run: boostPart },
  filter: { alone: false, run: filterPart },
  comeback: { alone: false, run: comebackPart },
  gates: { alone: false, run: gatesPart },
  ends: { alone: false, run: endsPart },
  mutants: { alone: false, run: mutantsPart },
  trials: { alone: true, run: trialsPart },
};
