import { describe, expect, it } from "vitest";
import { COLD_AIR, contextOf, NATURAL, TWO_BANKS } from "../../core.fixture";
import { BadInput, validate } from "../../input";
import { CHECKS, judgeCheck } from "..";
import { secondaryAir as sound } from "../records.fixture";
import { judgeSecondaryAir, type SecondaryAirRecord, secondaryAirFields } from ".";

const context = contextOf(COLD_AIR);
const judge = (change: Partial<SecondaryAirRecord>) => judgeSecondaryAir({ ...sound, ...change }, context);
const why = (change: Partial<SecondaryAirRecord>) => judge(change).reasons.join("; ");
const none = { oxygen: "no-change", trim: 0 } as const;

describe("secondary air", () => {
  it.each<[string, Partial<SecondaryAirRecord>, string, string | undefined]>([
    ["arrives", {}, "pass", "air-arrives"],
    ["bubbles at the pump's seam", { bubbles: ["pump-seam"] }, "fail", "air-escapes:pump-seam"],
    ["has a dead pump", { pumped: false }, "fail", "air-pump-dead"],
    ["does not arrive", { ...none, watched: 12 }, "fail", "air-blocked:air-valve"],
    ["comes back", { whenShut: "pulses" }, "fail", "air-back:air-valve"],
    ["was not read", { oxygen: "not-read" }, "unsure", undefined],
    ["was tried with the engine standing", { engineRunning: false }, "unsure", undefined],
    ["came late", { watched: 20 }, "unsure", undefined],
    ["hardly moved the trim", { trim: 3 }, "unsure", undefined],
    ["was watched too briefly", { ...none, watched: 2 }, "unsure", undefined],
    ["was not soaped", { soaped: false }, "unsure", undefined],
    ["was not felt shut", { whenShut: "not-felt" }, "unsure", undefined],
  ])("%s: %s", (_, change, outcome, observation) => {
    expect([judge(change).outcome, judge(change).observation]).toEqual([outcome, observation]);
  });

  it("proves nothing once the tool had let go, or before it was re-armed", () => {
    expect(why({ ...none, watched: 45 })).toMatch(/15 s after the command timed out/);
    expect(why({ pumped: false, rearmed: false })).toMatch(/had not been re-armed/);
    expect(why({ pumped: false, runBy: "relay-in", engineRunning: false })).toMatch(/with the engine running only/);
    for (const change of [
      { ...none, watched: 45 },
      { pumped: false, rearmed: false },
    ] as const)
      expect(judge(change)).toMatchObject({ outcome: "void" });
    // Whatever it showed: the pump had stopped before it was read.
    for (const oxygen of ["lean", "no-change"] as const) {
      expect(judge({ oxygen, answeredAfter: 41 }).outcome).toBe("void");
      expect(judge({ oxygen, watched: oxygen === "lean" ? 3 : 12, answeredAfter: 25 }).outcome).not.toBe("void");
    }
    expect(why({ answeredAfter: 41 })).toMatch(/11 s after the command had timed out.*the pump stood/);
    // A relay or a lead lets nothing go.
    expect(judge({ runBy: "fused-lead", answeredAfter: 41 }).outcome).toBe("pass");
    // A trap does not take back what was seen to bubble.
    expect(judge({ ...none, watched: 45, bubbles: ["pump-seam"] }).outcome).toBe("fail");
  });

  it("is never a size", () => {
    for (const trim of [11, 25, 50])
      expect(
        judge({ trim })
          .measures.map((m) => m.name)
          .join(),
      ).not.toMatch(/hole|mm|flow/i);
    expect(why({})).toMatch(/never a size/);
  });

  it("owes pump, joints, way in and way back apart, and says nothing of what was not tried", () => {
    const asked = (change: Partial<SecondaryAirRecord>) =>
      CHECKS["secondary-air"].claims({ ...sound, ...change }, judge(change), context).map((a) => `${a.atom} ${a.says}`);
    expect(asked({})).toEqual([
      "runs@air-pump good",
      "tight@pump-seam good",
      "tight@air-hose-joint good",
      "air@air-valve good",
      "shut@air-valve good",
    ]);
    expect(asked({ bubbles: ["pump-seam"] })).toContain("tight@pump-seam bad");
    expect(asked({ pumped: false })).not.toContain("tight@pump-seam good");
    expect(asked({ soaped: false })).toContain("tight@air-hose-joint open");
    expect(asked({ ...none, watched: 45 })).toEqual([]);
  });

  it("is tried at a bank's own valve, and nowhere without secondary air", () => {
    const two = contextOf(TWO_BANKS);
    expect(CHECKS["secondary-air"].places?.(two)).toEqual(["air-valve-1", "air-valve-2"]);
    expect(judgeCheck("secondary-air", sound, two).outcome).toBe("void");
    expect(judgeCheck("secondary-air", sound, contextOf(NATURAL)).outcome).toBe("void");
    expect(CHECKS["secondary-air"].plan(contextOf(NATURAL), { runBy: "scan-tool" }).refused).toMatch(/No secondary air/);
    expect(CHECKS["secondary-air"].plan(context, { runBy: "fused-lead" }).cautions).toContain("twelve-volt");
  });

  it("is refused at the door without how long it was watched", () => {
    const { watched: _, ...unwatched } = sound;
    expect(() => validate(secondaryAirFields.schema, unwatched)).toThrow(/how many seconds/);
    expect(() => validate(secondaryAirFields.schema, { ...sound, bubbles: ["sofa"] })).toThrow(BadInput);
  });
});
