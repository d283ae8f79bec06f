import { describe, expect, it } from "vitest";
import { contextOf, NATURAL } from "../../core.fixture";
import { judgeCheck } from "../index";
import { borescope as record } from "../records.fixture";
import type { BorescopeRecord, Port } from ".";

const says = (ports: Port[], change: Partial<BorescopeRecord> = {}) =>
  judgeCheck("borescope", { ...record, ports, ...change }, contextOf(NATURAL));

describe("borescope", () => {
  it("lets the worst port and its narrowest view decide", () => {
    const verdict = says([
      { name: "Port 1", straight: 95, side: 92 },
      { name: "Port 3", straight: 90, side: 40 },
    ]);
    expect(verdict).toMatchObject({ outcome: "fail", observation: "ports-blocked:intake-valves" });
    expect(verdict.headline).toMatch(/Port 3 only 40 % open/);
  });

  it("is not sure of a port seen straight on only: a shelf hides behind the bend", () => {
    expect(says([{ name: "Port 1", straight: 97 }])).toMatchObject({ outcome: "unsure" });
  });

  it("passes what is open from both sides, and says so of a cleaning that did not reach", () => {
    expect(says([...record.ports])).toMatchObject({ outcome: "pass", observation: "ports-open" });
    expect(says([{ name: "Port 1", straight: 50, side: 45 }], { when: "after-cleaning" }).reasons[0]).toMatch(/did not reach it/);
    expect(says([{ name: "Port 1", straight: 80, side: 78 }]).outcome).toBe("unsure");
  });
});
