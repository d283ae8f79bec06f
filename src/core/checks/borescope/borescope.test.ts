import { describe, expect, it } from "vitest";
import { contextOf, NATURAL } from "../../core.fixture";
import { validate } from "../../input";
import { CHECKS, judgeCheck } from "../index";
import { borescope as record } from "../records.fixture";
import { type BorescopeRecord, borescopeFields, type Port } from ".";

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

  it("owes each port that was blocked by itself: no neighbour that is open answers for it", () => {
    const atoms = (ports: Port[], change: Partial<BorescopeRecord> = {}) => {
      const one = { ...record, ports, ...change };
      const context = contextOf(NATURAL);
      return CHECKS.borescope.claims(one, judgeCheck("borescope", one, context), context).map((a) => `${a.atom} ${a.says}`);
    };
    const found = atoms([
      { name: "Port 1", straight: 95, side: 92 },
      { name: "Port 2", straight: 90, side: 12 },
      { name: "Port 3", straight: 95 },
    ]);
    expect(found).toEqual(["open@intake-valves/port 1 good", "open@intake-valves/port 2 bad", "open@intake-valves/port 3 open"]);
    // Cleaned, and only the good one looked into again.
    const after = atoms([{ name: "PORT  1", straight: 99, side: 98 }], { when: "after-cleaning" });
    expect(after).toEqual(["open@intake-valves/port 1 good"]);
  });

  it("clears no port that nobody looked into, where it is known how many there are", () => {
    const air = { ...NATURAL, fitted: ["secondary-air"], airPorts: 3 } as const;
    const port = (name: string) => ({ name, straight: 96, side: 94 });
    const of = (ports: Port[]) => judgeCheck("borescope", { ...record, joint: "air-valve", ports }, contextOf(air));
    expect(of([port("1"), port("2")])).toMatchObject({ outcome: "unsure", headline: expect.stringMatching(/2 of 3 ports/) });
    expect(of([port("1"), port("2"), port("3")]).outcome).toBe("pass");
    expect(of([port("1"), { ...port("2"), side: 10 }]).outcome).toBe("fail");
  });

  it("is refused at the door with a port that was not graded, or two of one name", () => {
    const refused = (ports: object[]) => {
      try {
        return validate(borescopeFields.schema, { ...record, ports });
      } catch (error) {
        return (error as Error).message;
      }
    };
    expect(refused([{ name: "Port 1" }])).toMatch(/Grade every port/);
    expect(
      refused([
        { name: "Port 1", straight: 50 },
        { name: "port  1", straight: 90 },
      ]),
    ).toMatch(/one name/);
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
