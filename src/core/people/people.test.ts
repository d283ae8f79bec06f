import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DEFAULT_SHOP, type Machine, type Shop } from "../shop/settings";
import {
  ACT_IDS,
  type Act,
  doorProof,
  isAsSigned,
  may,
  mayNot,
  newPinSchema,
  provesDoor,
  ROLE_IDS,
  shopActs,
  signed,
  signInOf,
  unwrapKey,
  wrapKey,
} from ".";

const KEY = "0f".repeat(32);
const OTHER = "f0".repeat(32);
const SIGN_IN = "3b241101-e2bb-4255-8caf-4136c566a962";

describe("who may what", () => {
  /** The table as the shop states it, line by line. */
  const TABLE: readonly (readonly [Act, apprentice: boolean, technician: boolean, lead: boolean])[] = [
    ["record", true, true, true],
    ["sign-repair", false, true, true],
    ["close", false, true, true],
    ["keep-equipment", false, true, true],
    ["import-job", false, true, true],
    ["countersign", false, false, true],
    ["hand-over-conditionally", false, false, true],
    ["change-limits", false, false, true],
    ["change-house", false, false, true],
    ["calibrate", false, false, true],
    ["manage-people", false, false, true],
    ["manage-devices", false, false, true],
    ["erase-customer", false, false, true],
    ["move-shop", false, false, true],
    ["see-security-log", false, false, true],
    ["see-practice", false, false, true],
  ];

  it("has a line for every act", () => expect(TABLE.map(([act]) => act)).toEqual(ACT_IDS));
  it.each(TABLE)("%s", (act, ...allowed) => {
    expect(ROLE_IDS.map((role) => may(role, act))).toEqual(allowed);
    expect(may(undefined, act)).toBe(true);
    expect(mayNot(act)).toMatch(/^Only a (lead|technician or a lead) /);
  });

  const machine: Machine = {
    id: "m",
    name: "Wisp",
    kind: "low-pressure",
    ratedPressure: { value: 13, unit: "inH2O" },
    maxFlow: { value: 10, unit: "L/min" },
    autoOff: 300,
    service: [],
  };
  const calibrated: Machine = {
    ...machine,
    calibration: {
      on: "2026-01-31",
      pressure: { value: 13, unit: "inH2O" },
      points: [{ height: 20, diameter: { value: 1, unit: "mm" } }],
    },
  };
  const shop = (change: Partial<Shop> = {}): Shop => ({ ...DEFAULT_SHOP, machines: [machine], ...change });
  it.each([
    ["nothing", shop(), []],
    ["a limit", shop({ limits: { ...DEFAULT_SHOP.limits, trimAct: { value: 0.2, source: "shop default" } } }), ["change-limits"]],
    [
      "where a limit is from",
      shop({ limits: { ...DEFAULT_SHOP.limits, trimAct: { ...DEFAULT_SHOP.limits.trimAct, source: "x" } } }),
      ["change-limits"],
    ],
    ["a house method", shop({ house: { ...DEFAULT_SHOP.house, dye: "uv" as never } }), ["change-house"]],
    ["its name", shop({ name: "Other" }), ["change-house"]],
    ["one more machine", shop({ machines: [machine, { ...machine, id: "n" }] }), ["keep-equipment"]],
    ["one more that is calibrated", shop({ machines: [machine, { ...calibrated, id: "n" }] }), ["calibrate", "keep-equipment"]],
    [
      "a machine's rating",
      shop({ machines: [{ ...machine, ratedPressure: { value: 1, unit: "psi" } }] }),
      ["calibrate", "keep-equipment"],
    ],
    ["its calibration", shop({ machines: [calibrated] }), ["calibrate", "keep-equipment"]],
    [
      "its service",
      shop({ machines: [{ ...machine, service: [{ on: "2026-01-31", what: "fluid" as never, note: "" }] }] }),
      ["keep-equipment"],
    ],
    ["a machine taken out", shop({ machines: [] }), ["keep-equipment"]],
    ["a gauge", shop({ instruments: [{ id: "g", name: "Gauge", division: { value: 1, unit: "inHg" } }] }), ["keep-equipment"]],
  ] as const)("a change of %s", (_what, after, acts) => expect(shopActs(shop(), after)).toEqual(acts));
  it("a calibrated machine taken out is a lead's", () =>
    expect(shopActs(shop({ machines: [calibrated] }), shop({ machines: [] }))).toEqual(["calibrate", "keep-equipment"]));
});

describe("a PIN", () => {
  it.each(["1234", "0000", "98765432", "3210", "012", "123456789", "12a4", "", " 2468", "7777777"])("%j is refused", (pin) =>
    expect(newPinSchema.isValidSync(pin)).toBe(false),
  );
  it.each(["2468", "1357", "90210", "10011001"])("%j is taken", (pin) => expect(newPinSchema.isValidSync(pin)).toBe(true));
});

describe("a signature", () => {
  const entry = { id: "a", jobId: "b", kind: "note", body: { text: "x", n: 0.1 }, by: "Wren Alder" };

  it("holds through the wire, whatever name is written on it", () => {
    const sent = JSON.parse(JSON.stringify(signed(entry, SIGN_IN, KEY)));
    expect(isAsSigned(sent, KEY)).toBe(true);
    expect(isAsSigned({ ...sent, by: "Maren Oake" }, KEY)).toBe(true);
  });

  it("breaks with any change of what was made, and under any other key", () => {
    const made = signed(entry, SIGN_IN, KEY);
    expect(isAsSigned(made, OTHER)).toBe(false);
    fc.assert(
      fc.property(fc.constantFrom("id", "jobId", "kind", "body", "at"), fc.anything(), (field, value) => {
        const changed = { ...made, [field]: value } as typeof made;
        const differs = JSON.stringify((made as Record<string, unknown>)[field]) !== JSON.stringify(value);
        return !differs || value === undefined || !isAsSigned(changed, KEY);
      }),
    );
    expect(isAsSigned({ ...made, body: { text: "x", n: 0.2 } } as typeof made, KEY)).toBe(false);
    expect(isAsSigned({ ...made, corrects: "z" } as never, KEY)).toBe(false);
    expect(isAsSigned({ ...made, signed: { ...made.signed, mac: "" } }, KEY)).toBe(false);
  });

  it("opens a door for its own sign-in alone", () => {
    const proof = doorProof(SIGN_IN, KEY);
    expect(signInOf(proof)).toBe(SIGN_IN);
    expect(provesDoor(proof, SIGN_IN, KEY)).toBe(true);
    expect(provesDoor(proof, SIGN_IN, OTHER)).toBe(false);
    for (const broken of ["", SIGN_IN, `${SIGN_IN}.`, `${SIGN_IN}.${"g".repeat(64)}`, `x.${"0".repeat(64)}`])
      expect(signInOf(broken)).toBeUndefined();
  });

  it("is kept on a device so that only the PIN brings its key back", async () => {
    const kept = await wrapKey(KEY, "2468", "ab".repeat(16));
    expect(JSON.stringify(kept)).not.toContain(KEY);
    expect(await unwrapKey(kept, "2468")).toBe(KEY);
    expect(await unwrapKey(kept, "2469")).toBeUndefined();
    expect(await unwrapKey({ ...kept, wrapped: OTHER }, "2468")).toBeUndefined();
  });
});
