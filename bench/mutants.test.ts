import { describe, expect, it } from "vitest";
import { CHECK_IDS, CHECKS } from "@/core/checks";
import { mutantTrial } from "./mutants";

describe("honest records with one thing made bad", () => {
  it("change their verdict, or the check says why that field does not bear on it", () => {
    const trial = mutantTrial();
    expect(trial.undeclared).toEqual([]);
    expect(trial.changed).toBeGreaterThan(2 * trial.declared);
  });

  it("are declared no more widely than they are: every reason is one that is needed, of a field that there is", () => {
    const needed = mutantTrial().needed;
    const declared = CHECK_IDS.flatMap((id) => Object.keys(CHECKS[id].irrelevant ?? {}).map((field) => `${id} ${field}`));
    expect(declared.filter((name) => !needed.has(name))).toEqual([]);
  });
});
