import { describe, expect, it } from "vitest";
import { contextOf, NATURAL } from "../../core.fixture";
import { judgeCheck } from "../index";
import { output, circuit as record } from "../records.fixture";
import { type CircuitRecord, circuit, judgeCircuit, type PinReading, pinsOf } from ".";

const context = contextOf(NATURAL);
const says = (change: Partial<CircuitRecord>) => judgeCircuit({ ...record, ...change }, context);
const V = (pin: PinReading["pin"], value: number): PinReading => ({ pin, voltage: { value, unit: "V" } });

describe("circuit check", () => {
  it("passes a circuit that is fed, switched and carries current", () => {
    expect(says({})).toMatchObject({ outcome: "pass", observation: "circuit-good:purge-valve" });
  });

  it("stops at the first wrong pin and says what is broken there", () => {
    expect(says({ readings: [V("feed", 0.2), V("across", 0)] }).reasons[0]).toMatch(/no feed/);
    const dead = says({ readings: [V("feed", 13.9), V("across", 0.1)] });
    expect(dead).toMatchObject({ outcome: "fail", observation: "circuit-dead:purge-valve" });
    expect(dead.reasons[0]).toMatch(/control side does not switch/);
  });

  it("is not satisfied by volts that light no lamp", () => {
    const verdict = says({ readings: [V("feed", 13.9), V("across", 13.5), { pin: "lamp", lamp: "dim" }] });
    expect(verdict.outcome).toBe("fail");
    expect(verdict.reasons[0]).toMatch(/carries no current/);
  });

  it("names the next pin while the way is not walked to its end", () => {
    const verdict = says({ readings: [V("feed", 13.9)] });
    expect(verdict.outcome).toBe("unsure");
    expect(verdict.headline).toMatch(/next: across the load/);
  });

  it("walks a relay from its coil to the load", () => {
    expect(pinsOf("relay", "ground").map((p) => p.id)).toEqual([
      "coil-feed",
      "coil-across",
      "contact-in",
      "contact-out",
      "load-ground",
      "across",
      "lamp",
    ]);
    const burnt = says({
      wiring: "relay",
      readings: [V("coil-feed", 14), V("coil-across", 13.6), V("contact-in", 14), V("contact-out", 4)],
    });
    expect(burnt.reasons[0]).toMatch(/burnt contact/);
    const ground = says({
      wiring: "relay",
      readings: [V("coil-feed", 14), V("coil-across", 13.6), V("contact-in", 14), V("contact-out", 13.8), V("load-ground", 2.1)],
    });
    expect(ground.reasons[0]).toMatch(/ground is not one/);
  });

  it("asks for a battery first, and keeps a pierced wire on the list", () => {
    expect(says({ battery: { value: 10.9, unit: "V" } }).outcome).toBe("unsure");
    expect(says({ pierced: true }).reasons.join()).toMatch(/until it is sealed/);
    const aim = { joint: "purge-valve", wiring: "two-wire", switched: "ground", pierced: true } as const;
    expect(
      circuit
        .plan(context, aim)
        .displaces.map((d) => d.what)
        .join(),
    ).toMatch(/wire pierced/);
  });
});

describe("commanded output", () => {
  it("works when it answers, is dead when it does not, and sends you to the circuit", () => {
    expect(judgeCheck("output", output, context)).toMatchObject({ outcome: "pass", observation: "output-works:purge-valve" });
    const dead = judgeCheck("output", { ...output, seen: "nothing" }, context);
    expect(dead).toMatchObject({ outcome: "fail", observation: "output-dead:purge-valve" });
    expect(dead.reasons.join()).toMatch(/circuit next/);
  });
});
