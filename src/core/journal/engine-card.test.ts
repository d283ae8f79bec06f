import { describe, expect, it } from "vitest";
import { engineCard } from "./engine-card";
import { found, proved } from "./journal.fixture";
import type { JobState } from "./state";

const job = (number: number, change: Partial<JobState> = {}) => {
  const state = proved({ torques: [{ where: "clamp", torque: { value: 3, unit: "N·m" } }] }).job.state();
  return { jobId: `job ${number}`, number, state: { ...state, ...change } };
};
/** The same job with its readings after the repair times so much. */
const reading = (number: number, times: number) => {
  const one = job(number);
  const scaled = one.state.checks.map((c) => ({
    ...c,
    verdict: {
      ...c.verdict,
      measures: c.verdict.measures.map((m) => ({ ...m, value: { ...m.value, value: m.value.value * times } as typeof m.value })),
    },
  }));
  return { ...one, state: { ...one.state, checks: scaled } };
};

describe("an engine's card", () => {
  it("is folded from proved jobs: what was read on them sound, weak places, ways in, torques, parts, minutes", () => {
    const card = engineCard([reading(3, 1.02), reading(2, 0.98), reading(1, 1)]);
    expect(card).toMatchObject({
      jobs: 3,
      weak: [{ joint: "pcv-hose", times: 3, minutes: 30 }],
      parts: [{ name: "PCV hose", times: 3 }],
    });
    expect(card?.torques).toHaveLength(3);
    expect(card?.torques[0]).toMatchObject({ where: "clamp", torque: { value: 3, unit: "N·m" }, job: 3 });
    const smoke = card?.knownGood.filter((k) => k.check === "smoke") ?? [];
    expect(smoke.length).toBeGreaterThan(0);
    for (const known of smoke) {
      expect(known.values.map((v) => v.job)).toEqual([3, 2, 1]);
      expect(known.band?.[0]).toBe(Math.min(...known.values.map((v) => v.value)));
      expect(known.band?.[1]).toBe(Math.max(...known.values.map((v) => v.value)));
    }
  });

  it("shows three jobs that disagree each by itself, and never averages them away", () => {
    const card = engineCard([reading(3, 1), reading(2, 2.4), reading(1, 1)]);
    const [flow] = card?.knownGood.filter((k) => k.check === "smoke") ?? [];
    expect(flow).not.toHaveProperty("band");
    expect(flow?.values).toHaveLength(3);
  });

  it("makes no band of two jobs, counts nothing from before the repair or from a check that failed, and is none without a job", () => {
    expect(engineCard([job(1), job(2)])?.knownGood.every((k) => k.band === undefined)).toBe(true);
    const { state } = job(1);
    const before = state.checks.map((c) => ({ ...c, afterRepair: "before" as const }));
    expect(engineCard([{ jobId: "a", number: 1, state: { ...state, checks: before } }])?.knownGood).toEqual([]);
    const failed = state.checks.map((c) => ({ ...c, verdict: { ...c.verdict, outcome: "fail" as const } }));
    expect(engineCard([{ jobId: "a", number: 1, state: { ...state, checks: failed } }])?.knownGood).toEqual([]);
    expect(engineCard([])).toBeUndefined();
  });

  it("carries what somebody wrote down for it, the newest first, proved or not, and nothing that was taken out", () => {
    const { job: writer } = found();
    writer.add("engine-note", { about: "way-in", text: "By the brake booster's hose: the duct is glued in" });
    const wrong = writer.add("engine-note", { about: "torque", text: "Clamp 30 N·m" });
    writer.add("engine-note", { about: "tools", text: "Hook 300 mm", pictures: ["ab".repeat(32)] });
    writer.add("retract", { reason: "It is 3" }, { corrects: wrong });
    const card = engineCard([], [{ jobId: "open", number: 9, state: writer.state() }]);
    expect(card).toMatchObject({ jobs: 0, weak: [], knownGood: [] });
    expect(card?.notes.map((n) => [n.about, n.text, n.job, n.by, n.pictures])).toEqual([
      ["tools", "Hook 300 mm", 9, "Maren Oake", [{ jobId: "open", sha256: "ab".repeat(32) }]],
      ["way-in", "By the brake booster's hose: the duct is glued in", 9, "Maren Oake", []],
    ]);
    expect(engineCard([], [job(1)])).toBeUndefined();
  });

  it("says of each reading with which machine and in what air it was taken", () => {
    const smoke = engineCard([job(1)])?.knownGood.find((k) => k.check === "smoke");
    expect(smoke?.values[0]?.with).toMatch(/^.+, 17 °C$/);
  });

  it("leaves out what was undone", () => {
    const { state } = job(1);
    const undone = { ...state, repairs: state.repairs.map((r) => ({ ...r, undone: true })) };
    expect(engineCard([{ jobId: "a", number: 1, state: undone }])).toMatchObject({ parts: [], torques: [] });
  });
});
