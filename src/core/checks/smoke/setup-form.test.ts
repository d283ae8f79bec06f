import { describe, expect, it } from "vitest";
import { contextOf, NATURAL, TURBO, VAPOUR } from "../../core.fixture";
import { formStateOf, isAsked } from "../../form";
import type { Machine } from "../../shop/settings";
import { reachOf, usualSetup, type VehicleFacts } from "../../vehicle";
import { EMPTY_EVAP_SMOKE } from "../evap-smoke";
import { asKept, asTyped, pinchedOf, type SmokeSetupFacts, smokeSetupForm, vapourBlocks } from ".";

const machine = {
  id: "fen",
  name: "Fen smoker",
  kind: "low-pressure",
  ratedPressure: { value: 0.5, unit: "psi", kind: "gauge" },
  maxFlow: { value: 12, unit: "L/min" },
  autoOff: 300,
  service: [],
} as const satisfies Machine;

const knownOf = (vehicle: VehicleFacts, change: Partial<SmokeSetupFacts> = {}): SmokeSetupFacts => {
  const context = contextOf(vehicle);
  return {
    layout: context.layout,
    circuit: "intake",
    machines: [machine],
    machine,
    throughEngine: false,
    context,
    full: { value: 0.5, says: "Rated 0.5 psi" },
    ...change,
  };
};
const stateOf = (draft: object, known: SmokeSetupFacts) => formStateOf(smokeSetupForm.fields, asTyped(draft), known);
const asked = (name: keyof typeof smokeSetupForm.fields, draft: object, known: SmokeSetupFacts) =>
  isAsked(smokeSetupForm.fields[name], stateOf(draft, known));

describe("a run's set-up as a form", () => {
  it("shows a draft as it stands, and keeps each answer as the draft records it", () => {
    const draft = { ...EMPTY_EVAP_SMOKE, zeroed: false, ballAtBottom: true, crank: "mark at 12 o'clock", blocked: ["tailpipe"] };
    const { value } = stateOf(draft, knownOf(NATURAL));
    expect([value("zeroed"), value("ballAtBottom"), value("smokeSeen")]).toEqual(["no", "yes", undefined]);
    expect([value("crank"), value("blocked"), value("machineId")]).toEqual(["mark at 12 o'clock", ["tailpipe"], ""]);
    for (const [name, typed, kept] of [
      ["zeroed", "yes", true],
      ["smokeSeen", "no", false],
      ["fuelLevel", "45", "45"],
      ["hotTank", true, true],
      ["heldOpen", ["throttle"], ["throttle"]],
    ] as const) {
      expect(asKept(name, typed)).toEqual({ [name]: kept });
      expect(stateOf({ ...draft, ...asKept(name, typed) }, knownOf(NATURAL)).value(name)).toEqual(typed);
    }
  });

  it("asks of a side, the crank, ball and gauge only where there is one", () => {
    const turbo = knownOf(TURBO);
    const at = (entry: string) => ({ ...EMPTY_EVAP_SMOKE, ...usualSetup(turbo.layout, entry) });
    expect(asked("into", at("cooler-outlet"), turbo)).toBe(true);
    expect(asked("into", { ...EMPTY_EVAP_SMOKE, entry: "gauge-port" }, knownOf(NATURAL))).toBe(false);
    expect(asked("crank", EMPTY_EVAP_SMOKE, knownOf(NATURAL))).toBe(false);
    expect(asked("crank", EMPTY_EVAP_SMOKE, knownOf(NATURAL, { throughEngine: true }))).toBe(true);
    const plain = knownOf(NATURAL, { machine: { ...machine, kind: "plain" } });
    expect([asked("proofPressure", {}, plain), asked("ballAtBottom", {}, plain), asked("smokeSeen", {}, plain)]).toEqual([
      false,
      false,
      true,
    ]);
    expect(asked("machineId", {}, knownOf(NATURAL, { machines: [] }))).toBe(false);
  });

  it("asks of a vapour system where a hose is pinched, whose far side is then untested", () => {
    const known = knownOf(VAPOUR, { circuit: "evap" });
    expect(asked("pinched", EMPTY_EVAP_SMOKE, known)).toBe(true);
    expect(asked("pinched", EMPTY_EVAP_SMOKE, knownOf(NATURAL))).toBe(false);
    const { options } = smokeSetupForm.fields.pinched as unknown as { options: (s: unknown) => readonly (readonly [string])[] };
    const offered = options(stateOf(EMPTY_EVAP_SMOKE, known)).map(([id]) => id);
    expect(offered).toEqual(expect.arrayContaining(["fill-limit-valve", "purge-canister"]));
    for (const vent of ["vent-valve", "vent-filter"]) expect(offered).not.toContain(vent);
    // Another way of shutting the vent keeps the pinch, and the pinch keeps the vent shut.
    expect(vapourBlocks("plug", ["vent-valve", "neck-tank"])).toEqual(["vent-filter", "neck-tank"]);
    expect(pinchedOf(vapourBlocks("command", ["neck-tank"]))).toEqual(["neck-tank"]);
    for (const pinch of offered) {
      const fill = { entry: "filler-cap", blocked: vapourBlocks("plug", [pinch]), heldOpen: ["neck-flap"] };
      const tested = reachOf(known.layout, fill).tested.map((j) => j.id);
      expect(tested).toContain("neck-hose");
      expect(tested, pinch).not.toContain(pinch);
    }
  });

  it("offers each circuit its own ways in, the usual ones first", () => {
    const options = (known: SmokeSetupFacts) => {
      const { options } = smokeSetupForm.fields.entry as unknown as {
        options: (s: unknown) => readonly (readonly [string, string])[];
      };
      return options(stateOf(EMPTY_EVAP_SMOKE, known)).map(([id]) => id);
    };
    expect(options(knownOf(NATURAL))).toContain("air-meter");
    expect(options(knownOf(VAPOUR, { circuit: "evap" }))).toContain("service-port");
    expect(options(knownOf(VAPOUR, { circuit: "evap" }))).not.toContain("air-meter");
  });
});
