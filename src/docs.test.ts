import { spawnSync } from "node:child_process";
import { cpSync, existsSync, mkdtempSync, readFileSync, rmSync, symlinkSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { pathToFileURL } from "node:url";
import { afterAll, describe, expect, it } from "vitest";
import { addCheck } from "../scripts/add-check.mjs";
import { architectureSvg } from "../scripts/architecture";
import { toRecord } from "./core/form";

const folder = mkdtempSync(join(tmpdir(), "pelota-docs-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe("docs/add-a-check.md", () => {
  it("scaffolds a check that stands in both lists, asks, judges and is refused twice", async () => {
    for (const part of ["src", "docs", "demo", "scripts", "bench", "e2e"]) cpSync(part, join(folder, part), { recursive: true });
    for (const file of ["tsconfig.json", "package.json", "next-env.d.ts", "playwright.config.ts"])
      if (existsSync(file)) cpSync(file, join(folder, file));
    symlinkSync(resolve("node_modules"), join(folder, "node_modules"));
    addCheck("trial-pressure", "Trial pressure", folder);
    expect(readFileSync(join(folder, "src/screens/job/stations/check.tsx"), "utf8")).toContain(
      '"trial-pressure": TrialPressureCheck,',
    );
    expect(() => addCheck("trial-pressure", "Trial pressure", folder)).toThrow(/there already/);
    expect(() => addCheck("Fuel", "x", folder)).toThrow(/no id/);
    expect(() => addCheck("fuel", 'a "b"', folder)).toThrow(/quotes/);

    const url = (path: string) => pathToFileURL(join(folder, path)).href;
    const { CHECKS, judgeCheck } = await import(/* @vite-ignore */ url("src/core/checks/index.ts"));
    const { contextOf, NATURAL } = await import(/* @vite-ignore */ url("src/core/core.fixture.ts"));
    const kind = CHECKS["trial-pressure"];
    const known = { context: contextOf(NATURAL), instruments: [], places: [], warm: true };
    expect(toRecord(kind.form, {}, known).errors).toMatchObject([{ field: "pressure" }, { field: "instrument.division" }]);
    const { record } = toRecord(kind.form, { pressure: "31", instrument: { division: "0.1 hPa" } }, known);
    expect(judgeCheck("trial-pressure", record, known.context)).toMatchObject({
      outcome: "fail",
      observation: "trial-pressure-high",
    });
    expect(judgeCheck("trial-pressure", { ...record, warm: false }, known.context)).toMatchObject({ outcome: "void" });
    // Every registry that must name it does.
    const compiled = spawnSync("node_modules/.bin/tsc", ["--noEmit", "--incremental", "false"], {
      cwd: folder,
      encoding: "utf8",
    });
    expect(compiled.stdout).toBe("");
  });
});

describe("docs/architecture.svg", () => {
  it("shows the imports as they are: draw it anew with npx tsx scripts/architecture.ts", () => {
    const edges = (svg: string) => [...svg.matchAll(/<title>([^:]+): /g)].map(([, edge]) => edge);
    expect(edges(readFileSync("docs/architecture.svg", "utf8"))).toEqual(edges(architectureSvg()));
  });
});
