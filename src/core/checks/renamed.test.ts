import { expect, expectTypeOf, it } from "vitest";
import { taken } from "../form";
import type { Bodies } from "../journal/entries";
import type { VehicleRecord } from "../vehicle";
import { checkForm } from "./check-form";
import { type DecayRecord, decayFields, decayForm } from "./decay";
import { filterFields } from "./filter";
import { type SmokeRun, smokeFields } from "./smoke";
import { type VacuumReading, vacuumFields } from "./vacuum";
import { type ValveRecord, valveFields } from "./valve";

/**
 * A field renamed in its one place stops the compiler wherever else it is named. Each line below says a name that no field
 * has, as a place does which the rename left behind: were it to compile, the line above it would not.
 */
it("is no name of a field any more, wherever it stood", () => {
  const places = [
    // Read off a record
    // @ts-expect-error
    (r: DecayRecord) => r.heldFor,
    // @ts-expect-error
    (r: VacuumReading) => r.steadyAt,
    // @ts-expect-error
    (r: SmokeRun) => r.ballLevel,
    // @ts-expect-error
    (r: ValveRecord) => r.jointName,
    // @ts-expect-error
    (b: Bodies["repair"]) => b.howLasting,
    // @ts-expect-error
    (v: VehicleRecord) => v.litres,
    // Asked by its form, under a condition, as a default, by what was said of another field
    // @ts-expect-error
    () => checkForm(decayFields, { ask: { heldFor: { example: "60" } } }),
    // @ts-expect-error
    () => checkForm(decayFields, { ask: { "reference.size": { when: () => true } } }),
    // @ts-expect-error
    () => checkForm(decayFields, { ask: { held: { when: ({ value }) => value("byVolume") === true } } }),
    // Worked out, kept, dropped, laid out, moved
    // @ts-expect-error
    () => checkForm(filterFields, { computed: { soot: () => 3 } }),
    // @ts-expect-error
    () => checkForm(valveFields, { keeps: ["jointName"] }),
    // @ts-expect-error
    () => checkForm(vacuumFields, { only: ["reading"] }),
    // @ts-expect-error
    () => checkForm(smokeFields, { elsewhere: { ambientPressure: "Say it in the conditions" } }),
    // @ts-expect-error
    () => checkForm(decayFields, { laidOut: { samples: ({ readings }) => readings } }),
    // @ts-expect-error
    () => checkForm(decayFields, { aside: { alone: taken("Decay") }, at: { alone: "readings" } }),
    // Between fields
    // @ts-expect-error
    () => decayFields.rule("vapourRise.stop", "It rose", () => true),
    // @ts-expect-error
    () => decayFields.rule("held", "Held", ({ heldFor }) => heldFor !== undefined),
    // Drawn by a screen
    // @ts-expect-error
    () => decayForm.fields.heldFor,
  ];
  expect(places.length).toBeGreaterThan(10);
  expectTypeOf<DecayRecord>().toHaveProperty("held");
});
