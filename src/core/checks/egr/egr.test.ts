import { describe, expect, it } from "vitest";
import { contextOf, DIESEL, NATURAL } from "../../core.fixture";
import { validate } from "../../input";
import type { Quantity } from "../../units";
import { CHECKS, judgeCheck } from "..";
import { egr as sound } from "../records.fixture";
import { type EgrRecord, egrFields, judgeEgr } from ".";

const context = contextOf(DIESEL);
const judge = (change: Partial<EgrRecord>) => judgeEgr({ ...sound, ...change }, context);
const maf = (value: number): Quantity => ({ value, unit: "g/s" });
const open = (value: number, rpm = 1500) => ({ open: { rpm, maf: maf(value) } });

describe("an EGR valve", () => {
  it.each<[string, Partial<EgrRecord>, string, string | undefined]>([
    ["that answers and holds", {}, "pass", "egr-answers"],
    ["that leaks by, with nothing seen outside", { seat: "passes", watched: "pipe" }, "fail", "egr-passes:egr-valve"],
    [
      "at whose tail smoke stays when the crank is turned",
      { seat: "passes", watched: "tail-turned" },
      "fail",
      "egr-passes:egr-valve",
    ],
    [
      "at whose tail smoke comes, through it or past overlapping valves",
      { seat: "passes", watched: "tail" },
      "unsure",
      undefined,
    ],
    ["of which nobody said where it was watched", { seat: "passes" }, "unsure", undefined],
    ["that does not answer", open(21.8), "fail", "egr-no-answer:egr-valve"],
    ["whose cooler leaks", { cooler: "loses" }, "fail", "egr-cooler"],
    ["that answers little", open(20.5), "unsure", undefined],
    ["whose seat was not tried", { seat: "not-tried" }, "unsure", undefined],
    ["that was not commanded", { shut: undefined as never, open: undefined as never }, "unsure", undefined],
    ["read at two speeds", open(14, 2400), "void", undefined],
    ["read on two sensors", { open: { rpm: 1500, map: { value: 101, unit: "kPa", kind: "absolute" } } }, "void", undefined],
    ["whose two readings are swapped", open(29), "void", undefined],
    ["read cold", { warm: false }, "void", undefined],
  ])("%s", (_, change, outcome, observation) => {
    expect([judge(change).outcome, judge(change).observation]).toEqual([outcome, observation]);
  });

  it("keeps what its seat showed, whatever spoiled the rest", () => {
    expect(judge({ ...open(14, 2400), seat: "passes", watched: "pipe" }).outcome).toBe("fail");
    expect(judge({ warm: false, cooler: "loses" }).outcome).toBe("fail");
  });

  it("owes seat, answer and cooler apart, and nothing that was not tried", () => {
    const asked = (change: Partial<EgrRecord>) =>
      CHECKS.egr.claims({ ...sound, ...change }, judge(change), context).map((a) => `${a.atom} ${a.says}`);
    expect(asked({})).toEqual(["seat@egr-valve good", "answers@egr-valve good"]);
    expect(asked({ seat: "passes", watched: "pipe" })).toEqual(["seat@egr-valve bad", "answers@egr-valve open"]);
    expect(asked({ cooler: "loses" })).toContain("cooler@egr-cooler-joint bad");
  });

  it("is tried where there is one, and refused at the door half read", () => {
    expect(judgeCheck("egr", sound, contextOf(NATURAL)).outcome).toBe("void");
    expect(CHECKS.egr.plan(contextOf(NATURAL), { joint: "egr-valve" }).refused).toMatch(/No EGR/);
    expect(() => validate(egrFields.schema, { ...sound, open: undefined })).toThrow(/shut and open at one speed/);
    expect(() => validate(egrFields.schema, { ...sound, open: { rpm: 1500 } })).toThrow(/a duty without a flow says nothing/);
  });
});

describe("an EGR valve behind a throttle", () => {
  const kPa = (value: number) => ({ value, unit: "kPa", kind: "absolute" }) as const;
  const grams = (value: number) => ({ value, unit: "g/s" }) as const;
  const read = (shut: [number, number], open: [number, number]) =>
    judgeEgr(
      {
        joint: "egr-valve",
        shut: { rpm: 1500, maf: grams(shut[0]), map: kPa(shut[1]) },
        open: { rpm: 1500, maf: grams(open[0]), map: kPa(open[1]) },
        seat: "holds",
        cooler: "none",
        warm: true,
      },
      contextOf({ ...NATURAL, fitted: ["egr"] }),
    ).observation;

  it("answers in the manifold where the throttle holds the air that comes in", () => {
    expect(read([4.9, 32], [4.88, 42])).toBe("egr-answers");
    expect(read([4.9, 32], [4.93, 32.2])).toBe("egr-no-answer:egr-valve");
  });

  it("is not shown by a foot that went down: more air at the meter is no exhaust", () => {
    expect(read([4.9, 32], [6.2, 41])).toBeUndefined();
  });
});
