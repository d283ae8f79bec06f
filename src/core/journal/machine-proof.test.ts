import { describe, expect, it } from "vitest";
import { smokeRun } from "../core.fixture";
import { DEFAULT_LIMITS } from "../shop/settings";
import { proofOf, sessionProof } from "./machine-proof";

const AT = "2026-03-01T10:00:00.000Z";
const now = Date.parse("2026-03-01T12:00:00.000Z");
const run = (change: object = {}, at = AT, check = "smoke") => ({ check, at, record: smokeRun(4.5, change) }) as never;
const machine = { name: smokeRun().machine.name };

describe("the proof of a machine", () => {
  it("serves the whole session, whatever the circuit, from this job or the one before", () => {
    const [mine, kept] = [run({}, AT, "evap-smoke"), proofOf(run({}, "2026-03-01T11:00:00.000Z"), DEFAULT_LIMITS)];
    expect(sessionProof([mine], [], machine, DEFAULT_LIMITS, now)?.at).toBe(AT);
    expect(sessionProof([mine], kept ? [kept] : [], machine, DEFAULT_LIMITS, now)?.at).toBe("2026-03-01T11:00:00.000Z");
  });

  it.each([
    ["another machine's", [run()], { name: "Another smoker" }, now],
    ["one of yesterday", [run({}, "2026-02-28T10:00:00.000Z")], machine, now],
    ["one that a clock set back has in the future", [run()], machine, Date.parse(AT) - 60_000],
    ["none where none was taken", [run({ proof: undefined })], machine, now],
    ["a stand-in's", [run({ source: { kind: "device", device: "Stand-in", simulated: true } })], machine, now],
    ["one of a machine that was turned down", [run({ regulated: { value: 8, unit: "inH2O" } }, AT, "evap-smoke")], machine, now],
    ["one that did not come up", [run({ proof: { ...smokeRun().proof, pressure: { value: 3, unit: "inH2O" } } })], machine, now],
    ["one with the ball up", [run({ proof: { ...smokeRun().proof, ballAtBottom: false } })], machine, now],
    ["one without smoke", [run({ proof: { ...smokeRun().proof, smokeSeen: false } })], machine, now],
    ["a hold test's", [run({}, AT, "hold")], machine, now],
  ])("does not serve as %s", (_, checks, of, at) => {
    expect(sessionProof(checks, [], of, DEFAULT_LIMITS, at)).toBeUndefined();
  });

  it("keeps the time it was taken, however often it is handed on", () => {
    const taken = { ...smokeRun().proof, takenAt: "2026-03-01T01:30:00.000Z" };
    expect(sessionProof([run({ proof: taken })], [], machine, DEFAULT_LIMITS, now)).toBeUndefined();
  });
});
