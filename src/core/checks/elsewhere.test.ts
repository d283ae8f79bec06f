import { describe, expect, it } from "vitest";
import { contextOf, DIESEL, NATURAL, VAPOUR } from "../core.fixture";
import { toRecord } from "../form";
import { DEFAULT_SHOP } from "../shop/settings";
import { layoutOf, usualSetup } from "../vehicle";
import { decayForm } from "./decay/fields";

describe("a draft that came to a car it does not suit", () => {
  it("breaks nothing there: a car without a tank's vapour has no way in, and the form says so", () => {
    for (const vehicle of [NATURAL, DIESEL, VAPOUR, { ...NATURAL, fitted: [] }]) {
      const context = contextOf(vehicle);
      const known = { context, vehicle: context.vehicle, instruments: [], shop: DEFAULT_SHOP };
      for (const draft of [{}, { entry: "filler-cap" }, { entry: "nowhere" }])
        expect(() => toRecord(decayForm, draft, known as never)).not.toThrow();
    }
  });

  it("sets nothing up at an entry that the vehicle does not have", () => {
    for (const entry of ["", "nowhere", "filler-cap"])
      expect(usualSetup(layoutOf({ ...DIESEL, fitted: [] }), entry)).toEqual({ entry, blocked: [], heldOpen: [] });
  });
});
