import { describe, expect, it } from "vitest";
import { judgeCheck } from "../../checks";
import { pressure } from "../../checks/records.fixture";
import { contextOf, smokeRun, TURBO } from "../../core.fixture";
import { Writer } from "../journal.fixture";

const bar = (value: number) => ({ value, unit: "bar", kind: "gauge" }) as const;
const car = { ...TURBO, maxBoost: bar(1) };

/** A cooler that let air out from 0.95 bar on, renewed; what is tested since is added. */
function repaired() {
  const job = new Writer();
  job.add("opened", { number: 1 });
  job.add("vehicle", car);
  const escapes = [{ joint: "cooler-tank", sign: "soap", from: bar(0.95) }] as const;
  job.add("check", { check: "pressure-test", record: { ...pressure, escapes } });
  const finding = job.add("finding", { joint: "cooler-tank", what: "cracked", confirmed: true, evidence: [] });
  const body = { finding, what: "cooler", permanence: "permanent", places: ["cooler-tank"], labourMinutes: 1 } as const;
  job.add("repair", { ...body, parts: [], otherChanges: [] });
  return job;
}
const owed = (job: Writer) => job.state().proof.owed.flatMap((o) => (o.missing ? [o.atom] : []));

describe("what came out at a pressure", () => {
  it("is answered by a test that stood as high, and by none below", () => {
    const job = repaired();
    expect(owed(job)).toEqual(expect.arrayContaining(["tight@cooler-tank", "tight@cooler-tank/at 0.95 bar"]));
    // Nine tenths of what may be put on pass by themselves, and say nothing of what began above.
    const low = { ...pressure, steps: [{ pressure: bar(0.5) }, { pressure: bar(0.91) }] };
    expect(judgeCheck("pressure-test", low, contextOf(car)).outcome).toBe("pass");
    job.add("check", { check: "pressure-test", record: low });
    expect(owed(job)).toEqual(["tight@cooler-tank/at 0.95 bar"]);
    job.add("check", { check: "pressure-test", record: pressure });
    expect(owed(job)).toEqual([]);
  });

  it("is not answered by clean smoke, which never opened it", () => {
    const job = repaired();
    const fill = { entry: "hot-pipe-clamp", blocked: [], heldOpen: [] };
    const arrivals = ["hot-pipe", "cooler", "cold-pipe"].map((zone) => ({ zone: zone as "cooler", at: 20 }));
    const run = smokeRun(0, { ...fill, arrivals });
    expect(judgeCheck("smoke", run, contextOf(car)).outcome).toBe("pass");
    job.add("check", { check: "smoke", record: run });
    expect(owed(job)).toContain("tight@cooler-tank/at 0.95 bar");
    expect(owed(job)).not.toContain("tight@cooler-tank");
  });
});
