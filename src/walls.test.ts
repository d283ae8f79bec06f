import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join, resolve } from "node:path";
import { expect, it } from "vitest";

const FORBIDDEN = [
  ["src/core/a.ts", "@/server/db/open"],
  ["src/core/b.ts", "react"],
  ["src/core/gas/c.ts", "../../screens/job/use-job"],
  ["src/ui/d.ts", "@/core/journal"],
  ["src/screens/e.ts", "@/server/jobs"],
  ["src/screens/job/f.ts", "../../app/page"],
  ["src/server/g.ts", "@/ui/button"],
  ["src/workers/h.ts", "@/screens/session/api"],
  ["src/cli/i.ts", "@/app/page"],
] as const;
const ALLOWED = [
  ["src/core/k.ts", "yup"],
  ["src/screens/l.ts", "@/core/journal"],
  ["src/server/m.ts", "@/core/journal"],
  ["src/ui/n.ts", "@/core/units"],
  ["src/app/o.ts", "@/screens/board/board"],
] as const;

it("the linter holds the walls between the layers, by alias and by relative path", () => {
  const folder = mkdtempSync(join(tmpdir(), "pelota-walls-"));
  const config = JSON.parse(readFileSync("biome.json", "utf8"));
  delete config.$schema;
  delete config.vcs;
  writeFileSync(join(folder, "biome.json"), JSON.stringify(config));
  for (const [file, from] of [...FORBIDDEN, ...ALLOWED]) {
    mkdirSync(dirname(join(folder, file)), { recursive: true });
    writeFileSync(join(folder, file), `import { x } from "${from}";\nexport const y = x;\n`);
  }
  const biome = resolve("node_modules/.bin/biome");
  const { stdout } = spawnSync(biome, ["lint", "--reporter=github", "--max-diagnostics=100"], { cwd: folder, encoding: "utf8" });
  rmSync(folder, { recursive: true, force: true });
  const refused = (file: string) =>
    stdout.split("\n").some((line) => line.includes(file) && line.includes("noRestrictedImports"));
  expect(FORBIDDEN.filter(([file]) => !refused(file))).toEqual([]);
  expect(ALLOWED.filter(([file]) => refused(file))).toEqual([]);
});
