import { describe, expect, it } from "vitest";
import { contextOf, NATURAL, TURBO } from "../../core.fixture";
import { layoutOf } from "../../vehicle";
import { verdictWord } from "../contract";
import { look, lookList, STANDS } from ".";

const context = contextOf(NATURAL);
const list = lookList(context.layout, NATURAL);
const all = (state: "fine" | "not-reached") => list.map(({ id }) => ({ id, state }));

describe("look and feel", () => {
  it("fits its list to the vehicle", () => {
    const turbo = lookList(layoutOf(TURBO), TURBO).map((i) => i.id);
    expect(turbo).toContain("cold-pipe-split");
    expect(list.map((i) => i.id)).not.toContain("cold-pipe-split");
    const bare = { ...NATURAL, fitted: [] };
    expect(lookList(layoutOf(bare), bare).map((i) => i.id)).not.toContain("booster-hose");
    expect(new Set(turbo).size).toBe(turbo.length);
  });

  it("says found, with the joint it speaks for and a warning not to stop there", () => {
    const items = [...all("fine").filter((i) => i.id !== "pcv-hose"), { id: "pcv-hose", state: "found" as const, note: "split" }];
    const verdict = look.judge({ items }, context);
    expect(verdict).toMatchObject({ outcome: "fail", observation: "look-found:pcv-hose" });
    expect(verdict.headline).toMatch(/split/);
    expect(verdictWord(look, verdict)).toBe("Not OK");
  });

  it("clears no zone, however fine", () => {
    const verdict = look.judge({ items: all("fine") }, context);
    expect(verdict).toMatchObject({ outcome: "pass", observation: "look-clean", zones: [] });
    expect(verdict.reasons[0]).toMatch(/does not clear a joint/);
  });

  it("is not sure while most places were not reached, and counts them", () => {
    const verdict = look.judge({ items: all("not-reached") }, context);
    expect(verdict.outcome).toBe("unsure");
    expect(verdict.observation).toBeUndefined();
    expect(verdict.reasons.join()).toMatch(new RegExp(`${list.length} of ${list.length} places not reached`));
  });

  it("warns before the first step not to touch a suspect", () => {
    expect(look.plan(context, undefined).steps[0]?.text).toMatch(/Do not tighten or touch/);
  });

  it("refuses a look at nothing", () => {
    expect(() => look.fields.schema.validateSync({ items: [] }, { strict: true })).toThrow(/Nothing looked at yet/);
  });

  it("weighs what was looked at place by place, and the list as a whole only where all of it was", () => {
    const some = ["pcv-hose", "oil-cap", "hiss"];
    const verdict = look.judge({ items: some.map((id) => ({ id, state: "fine" as const })), asked: some }, context);
    expect(verdict).toMatchObject({ outcome: "pass", observation: "look-fine:pcv-hose", also: ["look-fine:oil-cap"] });
    expect(verdict.reasons.join()).toMatch(`${list.length - 3} other places not looked at`);
    const half = look.judge({ items: [{ id: "pcv-hose", state: "fine" }], asked: some }, context);
    expect(half.outcome).toBe("unsure");
    expect(half.observation).toBeUndefined();
    const whole = look.judge({ items: all("fine"), asked: some }, context);
    expect(whole).toMatchObject({ observation: "look-clean" });
    expect(whole.also).toBeUndefined();
  });

  it("stands every place somewhere round the car", () => {
    for (const { stand } of lookList(layoutOf(TURBO), TURBO)) expect(Object.keys(STANDS)).toContain(stand);
  });
});
