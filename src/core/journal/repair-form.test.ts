import { describe, expect, it } from "vitest";
import { contextOf, NATURAL } from "../core.fixture";
import { type Draft, formStateOf, isRequired, toDraft, toRecord } from "../form";
import { repairFacts, repairForm, stillOff } from ".";
import { Writer } from "./journal.fixture";

const context = contextOf(NATURAL);
function known(...joints: string[]) {
  const job = new Writer();
  job.add("opened", { number: 1 });
  job.add("vehicle", NATURAL);
  for (const joint of joints)
    job.add("finding", { joint, what: `${joint} split`, confirmed: false, evidence: [], failed: { why: "age" } });
  return repairFacts(job.state(), context);
}
const read = (draft: Draft, of = known("pcv-hose", "oil-cap")) => toRecord(repairForm, draft, of);
const errors = (draft: Draft) => read(draft).errors?.map((f) => [f.field, f.message]);

describe("a repair", () => {
  it("repairs what is found and open, where that is, until another finding or place is chosen", () => {
    const [hose, cap] = known("pcv-hose", "oil-cap").open;
    expect(read({ what: "renewed", parts: "hose" }).record).toMatchObject({ finding: hose?.entry, places: ["pcv-hose"] });
    const other = read({ what: "renewed", parts: "cap", finding: cap?.entry }).record;
    expect(other).toMatchObject({ finding: cap?.entry, places: ["oil-cap"] });
    expect(read({ what: "x", parts: "y" }, known("other")).record?.places).toEqual(["other"]);
    expect(read({ what: "x", finding: "", places: ["anywhere"] }).record).not.toHaveProperty("finding");
  });

  it("says at its field what is missing or cannot be", () => {
    expect(errors({ places: [] })?.map(([field]) => field)).toEqual(["what", "places"]);
    expect(errors({ what: "x", places: ["moon"] })).toEqual([["places", expect.stringContaining("where it was worked on")]]);
    expect(errors({ what: "taped", permanence: "temporary" })).toEqual([
      ["recheck", expect.stringContaining("re-check date")],
      ["limit", expect.stringContaining("how far")],
    ]);
    expect(errors({ what: "cleaned the valve" })).toEqual([["method", expect.stringContaining("say whether it was cleaned")]]);
    expect(errors({ what: "cleaned the valve", method: "cleaned" })).toEqual([
      ["permanence", expect.stringContaining("temporary")],
    ]);
    expect(errors({ what: "x", labourMinutes: "an hour" })).toEqual([["labourMinutes", expect.stringContaining("an hour")]]);
    expect(errors({ what: "x", torques: "nuts 20 N·m\nbolts tight" })).toEqual([
      ["torques", expect.stringContaining('"bolts tight"')],
    ]);
    expect(errors({ what: "x", substitute: { what: "fuel hose", medium: "vapour" } })).toEqual([
      ["substitute.what", expect.stringContaining("temporary repair")],
    ]);
  });

  it("marks as required what is refused without, and nothing else", () => {
    const state = formStateOf(repairForm.fields, {}, known());
    const names = Object.keys(repairForm.fields).filter((name) => isRequired(repairForm, name, state));
    expect(names).toEqual(["what", "culprit", "regeneration.by", "permanence", "recheck", "limit"]);
  });

  it("takes what was typed as it was meant, and stands in its form again as it was recorded", () => {
    const draft = {
      what: "Hose renewed",
      labourMinutes: "45 min",
      parts: "2 × clamps\nhose\n\n",
      otherChanges: "air filter renewed",
      torques: "throttle body: 9 N·m",
      substitute: { what: "hose by the metre", medium: "vapour", temperature: "120", suction: "25 inHg" },
      agreed: true,
    };
    const { record } = read(draft);
    expect(record).toMatchObject({
      labourMinutes: 45,
      parts: [
        { count: 2, name: "clamps" },
        { count: 1, name: "hose" },
      ],
      torques: [{ where: "throttle body", torque: { value: 9, unit: "N·m" } }],
      goAhead: "The customer agreed",
    });
    const of = known("pcv-hose", "oil-cap");
    expect(read(toDraft(repairForm, record as never, of)).record).toEqual(record);
    expect(read({ what: "x", parts: "y" }).record?.labourMinutes).toBe(0);
  });

  it("leaves what is still off to be owed, each by itself, and nothing that this car has not got", () => {
    const draft = { off: ["oil-cap", "moon"], displaced: "engine cover\n \nshield" };
    expect(stillOff(draft, known())).toEqual([
      { what: expect.stringMatching(/ off$/), joint: "oil-cap" },
      { what: "engine cover", elsewhere: true },
      { what: "shield", elsewhere: true },
    ]);
    expect(stillOff({ off: "oil-cap", displaced: 3 }, known())).toEqual([]);
  });
});
