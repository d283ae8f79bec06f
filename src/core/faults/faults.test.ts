import { describe, expect, it } from "vitest";
import { COLD_AIR, DIESEL, NATURAL, SEALED_NECK, TURBO, TWO_BANKS, VAPOUR } from "../core.fixture";
import { FITTED_SYSTEMS, layoutOf, type VehicleFacts } from "../vehicle";
import {
  APART,
  CODE_TEXTS,
  CONFIRM_MINUTES,
  causesOf,
  codeText,
  FAMILIES,
  FAMILY_IDS,
  findingPlaces,
  isForVapourMonitor,
  SYMPTOMS,
} from ".";
import type { Trait } from "./trait";

const everything: VehicleFacts = {
  ...VAPOUR,
  induction: "turbo",
  fitted: FITTED_SYSTEMS,
  boostWorked: "vacuum",
  egrWorked: "vacuum",
  airValveWorked: "vacuum",
};
const CARS = [NATURAL, TURBO, TWO_BANKS, VAPOUR, SEALED_NECK, DIESEL, COLD_AIR, everything];
const traitsOf = (facts: VehicleFacts) => causesOf(layoutOf(facts), facts, FAMILY_IDS).map((c) => c.trait);

describe("families of faults", () => {
  it.each(FAMILY_IDS)("%s: every trait has a cause and the time to confirm it, and the other way round", (id) => {
    const minutes = FAMILIES[id].confirmMinutes;
    const named = new Set(CARS.flatMap((facts) => FAMILIES[id].causes(facts)).map((c) => c.trait));
    // A cause that another family has as well shows as it does there.
    const own = id === "engine" || FAMILIES[id].apart ? named : new Set(Object.keys(minutes) as Trait[]);
    for (const trait of Object.keys(minutes) as Trait[]) expect(named).toContain(trait);
    for (const trait of Object.keys(minutes) as Trait[]) {
      expect(own, trait).toContain(trait);
      expect(CONFIRM_MINUTES[trait]).toBe(minutes[trait]);
    }
    for (const trait of own) expect(CONFIRM_MINUTES[trait], trait).toBeGreaterThan(0);
    for (const trait of Object.values(FAMILIES[id].leaksInto)) expect(Object.keys(minutes)).toContain(trait);
  });

  it.each(FAMILY_IDS)("%s: a row for every code's observation and every symptom, and none that nothing brings", (id) => {
    const { codes, symptoms, rows } = FAMILIES[id];
    const brought = new Set([
      ...codes.flatMap((c) => c.observation ?? []),
      ...symptoms.map(([symptom]) => `symptom:${symptom}`),
      // Lean on one of two banks is said of the codes together.
      ...(id === "engine" ? ["code:one-bank-lean"] : []),
    ]);
    expect(Object.keys(rows).sort()).toEqual([...brought].sort());
  });

  it.each(FAMILY_IDS)("%s: what it commands is on a vehicle that has everything", (id) => {
    const joints = layoutOf(everything).joints.map((j) => j.id);
    for (const joint of FAMILIES[id].commanded) expect(joints).toContain(joint);
  });

  it("share no code and no symptom, and know codes whatever case they are typed in", () => {
    const codes = CODE_TEXTS.map((c) => c.code);
    expect(new Set(codes).size).toBe(codes.length);
    expect(new Set(SYMPTOMS.map(([id]) => id)).size).toBe(SYMPTOMS.length);
    for (const { code, text } of CODE_TEXTS) expect(codeText(code.toLowerCase())?.text).toBe(text);
    expect(["p0442", "P0446", "P0171", "P3FFF"].map(isForVapourMonitor)).toEqual([true, true, false, false]);
    // A wire is measured and commanded: nobody waits a night for it.
    expect(["P0443", "P0498", "P0452"].map(isForVapourMonitor)).toEqual([false, false, false]);
  });

  it("stand apart from the engine's own readings only where they say so", () => {
    const apart = FAMILY_IDS.filter((id) => FAMILIES[id].apart).flatMap((id) => Object.keys(FAMILIES[id].confirmMinutes));
    expect([...APART].sort()).toEqual(apart.sort());
  });
});

describe("causes of a vehicle", () => {
  it("are each there once, at joints it has, and one of two families is as likely as where it is met most", () => {
    for (const facts of CARS) {
      const layout = layoutOf(facts);
      const joints = layout.joints.map((j) => j.id);
      const causes = causesOf(layout, facts, FAMILY_IDS);
      expect(new Set(causes.map((c) => c.id)).size).toBe(causes.length);
      for (const { joint, prior, trait } of causes) {
        if (joint) expect(joints).toContain(joint);
        if (trait !== "healthy") expect(prior).toBeGreaterThan(0);
      }
    }
    const purge = (families: typeof FAMILY_IDS) =>
      causesOf(layoutOf(VAPOUR), VAPOUR, families).find((c) => c.id === "purge-valve")?.prior;
    expect(purge(FAMILY_IDS)).toBe(Math.max(purge(["engine"]) as number, purge(["evap"]) as number));
  });

  it("are not those of what is not fitted", () => {
    expect(traitsOf({ ...VAPOUR, fitted: ["booster"], evap: undefined })).not.toContain("vapour-leak");
    expect(traitsOf({ ...NATURAL, metering: "map" })).not.toContain("meter-low");
    expect(traitsOf({ ...NATURAL, fitted: ["pcv"] })).not.toContain("device-stuck");
  });

  it("name every joint that can leak, a tapped port too, and can be found at each", () => {
    const facts: VehicleFacts = { ...NATURAL, tapped: ["manifold"] };
    const layout = layoutOf(facts);
    expect(causesOf(layout, facts).find((c) => c.id === "tapped-manifold")).toMatchObject({ trait: "manifold-leak" });
    const places = findingPlaces(layout, facts).map((p) => p.id);
    for (const joint of layout.joints) expect(places).toContain(joint.id);
    expect(places).toContain("filter-clogged");
    expect(places).not.toContain("healthy");
  });
});
