import type { CheckContext } from "../checks/check";
import { VENT_PARTS } from "../checks/vent-path/record";
import { inSentence } from "../sentence";
import { EVAP_ZONES, entriesOf, reachOf, usualSetup } from "../vehicle";
import { type Candidate, TAKEN_APART } from "./candidate";

/** Checks of the vapour system that this vehicle allows, with what each costs and can say. */
export function evapCandidates({ layout, vehicle }: CheckContext): Candidate[] {
  if (!vehicle.fitted.includes("evap")) return [];
  const list: Candidate[] = [];
  for (const entry of entriesOf(layout, "evap")) {
    const tested = reachOf(layout, usualSetup(layout, entry.id))
      .tested.filter((j) => EVAP_ZONES.includes(j.from))
      .map((j) => j.id);
    const at = inSentence(entry.name);
    const minutes = entry.entry?.minutes ?? 0;
    list.push(
      {
        check: "evap-smoke",
        place: entry.id,
        name: `EVAP smoke in at the ${at}`,
        minutes,
        penalty: TAKEN_APART,
        outcomes: ["smoke-none-outside", "smoke-inside-path", ...tested.map((id) => `smoke-at:${id}`)],
        tested,
        why: `puts ${tested.length} joints to the test at once`,
        ...(entry.id === "filler-cap" ? { touches: ["filler-cap"] } : {}),
      },
      {
        check: "decay",
        place: entry.id,
        name: `Pressure decay from the ${at}`,
        minutes: minutes - 2,
        penalty: TAKEN_APART,
        outcomes: ["decay-leaks", "decay-tight"],
        tested,
        why: "says whether it leaks at all, not where",
        ...(entry.id === "filler-cap" ? { touches: ["filler-cap"] } : {}),
      },
    );
  }
  if (vehicle.evap?.monitor !== "canister-pump") {
    list.push({
      check: "pulldown",
      name: "Pull-down trace",
      minutes: 8,
      penalty: 1,
      outcomes: ["pulldown-good", "pulldown-creeps", "pulldown-none", "pulldown-loses", "pulldown-no-relief"],
      tested: ["purge-valve", "vent-valve", "vent-filter"],
      why: "purge, vent and tightness in one trace, nothing comes off",
    });
  }
  list.push(
    {
      check: "vent-path",
      name: "Vent path",
      minutes: 12,
      penalty: 0.9,
      outcomes: ["vent-free", ...VENT_PARTS.map((id) => `vent-blocked:${id}`)],
      tested: [...VENT_PARTS],
      why: "blown through from outside to the tank",
    },
    {
      check: "tank-sensor",
      name: "Tank-pressure sensor",
      minutes: 6,
      penalty: 1,
      outcomes: ["sensor-off", "sensor-good"],
      why: "cap off, key on, one reading",
      touches: ["filler-cap"],
    },
  );
  if (layout.joints.some((j) => j.id === "filler-cap") && vehicle.evap?.neck !== "capless") {
    list.push({
      check: "cap",
      place: "filler-cap",
      name: "Filler cap on its tester",
      minutes: 4,
      penalty: 0.95,
      outcomes: ["hold-leaks:filler-cap", "hold-good"],
      tested: ["filler-cap"],
      why: "the cheapest suspect by itself",
      touches: ["filler-cap"],
    });
  }
  return list;
}
