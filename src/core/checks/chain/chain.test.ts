import { describe, expect, it } from "vitest";
import { contextOf, NATURAL, TWO_BANKS } from "../../core.fixture";
import { chain as record } from "../records.fixture";
import { type ChainRecord, chain, judgeChain } from ".";
import { chainClaims } from "./claims";

const context = contextOf(TWO_BANKS);
const says = (links: Partial<ChainRecord["links"]>) => judgeChain({ ...record, links: { ...record.links, ...links } }, context);
const without = (...ids: (keyof ChainRecord["links"])[]) =>
  Object.fromEntries(Object.entries(record.links).filter(([id]) => !ids.includes(id as keyof ChainRecord["links"])));

describe("vacuum-worked device", () => {
  it("passes a chain that works from supply to plate", () => {
    expect(says({})).toMatchObject({ outcome: "pass", observation: "chain-good" });
  });

  it.each<[Partial<ChainRecord["links"]>, string, RegExp]>([
    [{ supply: { value: 9, unit: "inHg", kind: "vacuum" } }, "flap-line", /supply is short/],
    [{ control: { value: 0.1, unit: "V" } }, "flap-circuit", /pin by pin/],
    [{ outlet: { value: 2, unit: "inHg", kind: "vacuum" } }, "flap-solenoid", /does not pass/],
    [{ diaphragm: { start: 18, end: 6, seconds: 60, unit: "inHg" } }, "flap-diaphragm", /diaphragm or its pipe leaks/],
    [{ shaft: false }, "flap-shaft", /shaft binds/],
    [{ plate: false }, "flap-plate", /do not run the engine/],
  ])("%j breaks it at %s", (links, place, reason) => {
    const verdict = says(links);
    expect(verdict).toMatchObject({ outcome: "fail", observation: `chain-broken:${place}` });
    expect(verdict.reasons[0]).toMatch(reason);
  });

  it("names the next link while the chain is read", () => {
    const verdict = judgeChain({ ...record, links: without("outlet", "diaphragm", "shaft", "movement", "plate") }, context);
    expect(verdict.outcome).toBe("unsure");
    expect(verdict.headline).toMatch(/next: vacuum at its outlet/);
  });

  it("asks for plates where there are some: vanes and valves have none", () => {
    const links = without("plate");
    expect(judgeChain({ ...record, links }, context)).toMatchObject({ outcome: "unsure" });
    for (const device of ["Vanes of the turbocharger", "EGR valve"]) {
      const one = { ...record, device, links };
      expect(judgeChain(one, context)).toMatchObject({ outcome: "pass" });
      expect(chainClaims(one, judgeChain(one, context), context).map((c) => c.says)).not.toContain("open");
    }
  });

  it("is refused where no flaps are fitted", () => {
    expect(chain.plan(contextOf(NATURAL), undefined).refused).toMatch(/No runner flaps/);
  });

  it("says nothing of a supply that was not used, nor against one whose reservoir was drawn empty", () => {
    const from = (source: ChainRecord["source"], inHg: number) => {
      const links = { ...record.links, supply: { value: inHg, unit: "inHg", kind: "vacuum" } as const };
      const whole: ChainRecord = { ...record, links, ...(source ? { source } : {}) };
      const verdict = judgeChain(whole, context);
      const supply = chainClaims(whole, verdict, context).filter((a) => a.atom.includes("flap-line"));
      return { ...verdict, supply: supply.map((a) => a.says) };
    };
    expect(from("pump", 20)).toMatchObject({ outcome: "unsure", headline: expect.stringMatching(/supply was not tried/) });
    expect(from("pump", 20).supply).not.toContain("good");
    expect(from("pump", 20).observation).toBeUndefined();
    expect(from("pump", 5)).toMatchObject({
      outcome: "unsure",
      reasons: [expect.stringMatching(/work the pump/), expect.anything()],
    });
    expect(from("reservoir", 5)).toMatchObject({
      outcome: "unsure",
      reasons: [expect.stringMatching(/drawn empty/), expect.anything()],
    });
    expect(from("reservoir", 20)).toMatchObject({ outcome: "pass", observation: "chain-good" });
    const broken = { ...record, source: "pump" as const, links: { ...record.links, shaft: false } };
    expect(judgeChain(broken, context)).toMatchObject({ outcome: "fail", tested: expect.not.arrayContaining(["flap-line"]) });
    // Also where it moved on 12 V, its vacuum was the pump's.
    const fed = { ...record, source: "pump" as const, links: { ...without("supply"), fed: true } };
    expect(judgeChain(fed, context).outcome).toBe("unsure");
    expect(chainClaims(fed, judgeChain(fed, context), context).map((a) => [a.atom, a.says])).not.toContainEqual([
      expect.stringContaining("flap-line"),
      "good",
    ]);
  });

  it("fed 12 V it moves: its wiring is broken, and what is between supply and movement works", () => {
    const bare = without("supply", "outlet", "shaft", "control");
    const verdict = judgeChain({ ...record, links: { ...bare, fed: true, control: { value: 0.1, unit: "V" } } }, context);
    expect(verdict).toMatchObject({ outcome: "fail", observation: "chain-broken:flap-circuit" });
    expect(verdict.reasons[0]).toMatch(/fed 12 V it moves/);
    // It does not speak for what it cannot show: the voltage, and whether the diaphragm weeps.
    const unread = judgeChain(
      { ...record, links: { ...without("supply", "control", "outlet", "diaphragm", "shaft"), fed: true } },
      context,
    );
    expect(unread.outcome).toBe("unsure");
    const weeps = says({ fed: true, diaphragm: { start: 18, end: 6, seconds: 60, unit: "inHg" } });
    expect(weeps.observation).toBe("chain-broken:flap-diaphragm");
    // What was read goes before what moving suggests.
    expect(says({ fed: true, shaft: false }).observation).toBe("chain-broken:flap-shaft");
    expect(says({ fed: false, outlet: { value: 2, unit: "inHg", kind: "vacuum" } }).reasons.join()).toMatch(/not in its wiring/);
  });
});
