import { CAUTION_TEXTS, CHECKS } from "../checks";
import { inSentence } from "../sentence";
import { vehicleFacts, vehicleName } from "../vehicle";
import { type Bodies, ENGINE_NOTES, type EntryKind, isEntryKind, type JournalEntry, MONITOR_RESULTS } from "./entries";
import type { JobState } from "./state";

type Words = { readonly [K in EntryKind]: (body: Bodies[K], entry: JournalEntry, job: JobState) => string };

const WORDS: Words = {
  opened: (b) => (b.practice ? `Practice ${b.number} opened, case ${b.practice}` : `Job ${b.number} opened`),
  bay: (b) =>
    ({
      hint: "Hint taken",
      wait: `Waited ${b.minutes ?? 0} min`,
      tighten: `Tightened by hand: ${b.joint ?? ""}`,
      light: `Light: ${b.light?.lamp ?? ""}, door ${b.light?.door ?? ""}`,
      "look-over": `Instrument looked over: ${b.instrument ?? ""}`,
      end: "Case ended",
    })[b.act],
  vehicle: (b) => `Vehicle: ${[vehicleName(vehicleFacts(b)), b.registration].filter(Boolean).join(", ")}`,
  story: (b) => `Story: ${b.complaint}`,
  codes: (b) => (b.codes.length === 0 ? "Codes read: none" : `Codes read: ${b.codes.map((c) => c.code).join(", ")}`),
  "codes-cleared": () => "Codes cleared",
  conditions: (b) =>
    `Conditions: ${b.ambient.value} ${b.ambient.unit} absolute, ${b.bayTemperature.value} ${b.bayTemperature.unit} in the bay`,
  check: (b, entry, job) => {
    const headline = job.checks.find((c) => c.entry === entry.id)?.verdict.headline;
    return headline ? `${CHECKS[b.check].name}: ${headline}` : CHECKS[b.check].name;
  },
  judged: (b) => `Shown: ${b.headline}`,
  caution: (b) => `Caution understood: ${CAUTION_TEXTS[b.caution]}`,
  displaced: (b) => (b.commanded ? `Commanded: ${b.what}` : b.swappedBack ? `Swapped back: ${b.what}` : `Off the car: ${b.what}`),
  restored: (b, _entry, job) => `Back on: ${job.offCar.find((i) => i.entry === b.item)?.what ?? "an item taken out since"}`,
  finding: (b) => `Found: ${b.what}`,
  kit: (b) => `Teardown kit: ${b.items.length} items, ${b.items.filter((i) => i.ready).length} ready`,
  repair: (b) => `Repaired: ${b.what}`,
  undone: (b, _entry, job) => `Undone: ${job.repairs.find((r) => r.entry === b.repair)?.body.what ?? "a repair taken out since"}`,
  reset: (b) => `${CHECKS[b.check].resets?.name ?? "The ECU was told"}: ${b.learned}`,
  "complaint-tried": (b) => `Complaint tried again (${b.how}): ${b.result === "gone" ? "gone" : "remains"}`,
  readiness: (b) => `Parked for the EVAP monitor: fuel ${b.fuelLevel} %, ${b.outside.value} ${b.outside.unit} expected`,
  monitor: (b) => `EVAP monitor: ${MONITOR_RESULTS[b.result].toLowerCase()} (${b.readBy})`,
  drive: (b) =>
    `Driven ${b.minutes} min${b.distance ? `, ${b.distance.value} ${b.distance.unit}` : ""}${b.coldStart ? ", cold start" : ""}${b.conditions ? `: ${b.conditions}` : ""}`,
  order: (b, _entry, job) =>
    `Order told: ${job.checks.find((c) => c.entry === b.entry)?.verdict.headline ?? "a reading"} came before ${job.repairs.find((r) => r.entry === b.before)?.body.what ?? "a repair"}`,
  "set-aside": (b) => `Set aside: ${b.of === "code" ? b.id : `a ${b.of}`}, ${b.reason}`,
  waiting: (b) => `Waiting for: ${b.on === "me" ? "us" : b.on.replace("-", " ")}${b.note ? `, ${b.note}` : ""}`,
  note: (b) => `Note: ${b.text}`,
  "engine-note": (b) => `For the engine's card, ${inSentence(ENGINE_NOTES[b.about])}: ${b.text}`,
  handover: (b) => `Handed over${b.conditional ? " conditionally" : ""}: ${b.summary}`,
  close: (b, entry, job) => (job.closing?.entry === entry.id ? `Asks to close (looked at through ${b.decidedOn})` : "Job closed"),
  signed: (b, _entry, job) =>
    `Signed as permanent: ${job.repairs.find((r) => r.entry === b.repair)?.body.what ?? "a repair taken out since"}`,
  countersigned: (b) => (b.sentBack ? `Closing sent back: ${b.sentBack}` : "Closing countersigned: job closed"),
  outcome: (b) => `Later: ${b.result.replaceAll("-", " ")}${b.note ? `, ${b.note}` : ""}`,
  retract: (b) => `Taken out: ${b.reason}`,
};

/** One line of the journal in words; an entry of a kind we do not know is named as such. */
export function entryWords(entry: JournalEntry, job: JobState): string {
  if (!isEntryKind(entry.kind)) return `Kept, but of a kind this version does not know: ${entry.kind}`;
  const words = WORDS[entry.kind] as (body: unknown, entry: JournalEntry, job: JobState) => string;
  return words(entry.body, entry, job);
}
