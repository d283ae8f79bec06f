import { describe, expect, it } from "vitest";
import { NATURAL } from "../core.fixture";
import { findingPlaces } from "../faults";
import { layoutOf, vehicleFacts } from "../vehicle";
import { ANYWHERE } from "./entries";
import { ELSEWHERE, validatePlaces } from "./places";

const door = (kind: "finding" | "repair" | "displaced", place: string, described = [NATURAL]) => {
  const body = kind === "repair" ? { places: [place] } : { joint: place };
  return () => validatePlaces(kind, body, () => described);
};
const vehicle = vehicleFacts(NATURAL);

describe("places at the door", () => {
  it("takes every place that can be chosen, and that nobody can say where", () => {
    for (const { id } of findingPlaces(layoutOf(vehicle), vehicle)) expect(door("finding", id)).not.toThrow();
    for (const place of [ELSEWHERE, ANYWHERE]) expect(door("repair", place)).not.toThrow();
  });

  it.each(["constructor", "__proto__", "toString", "hasOwnProperty", "nowhere", "Manifold gasket", " manifold-gasket"])(
    "refuses %s, saying what to do",
    (place) => {
      for (const kind of ["finding", "repair", "displaced"] as const) expect(door(kind, place)).toThrow(/choose one of the list/);
    },
  );

  it("takes a place that an earlier description of the vehicle had, or any vehicle has where none is described", () => {
    const flaps = { ...NATURAL, fitted: [...NATURAL.fitted, "runner-flaps" as const] };
    const all = vehicleFacts(flaps);
    const own = findingPlaces(layoutOf(all), all).filter(
      ({ id }) => !findingPlaces(layoutOf(vehicle), vehicle).some((p) => p.id === id),
    );
    expect(own.length).toBeGreaterThan(1);
    for (const { id } of own) expect(door("finding", id, [flaps, NATURAL])).not.toThrow();
    expect(door("finding", "manifold-gasket", [])).not.toThrow();
  });
});
