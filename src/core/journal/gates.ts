import { CHECKS, jointName } from "../checks";
import { inSentence } from "../sentence";
import { formatNumber } from "../units";
import { layoutOf } from "../vehicle";
import { COMEBACK_COUNTS } from "./comeback";
import { disabledBy } from "./emission";
import { type CodeWait, type Obligation, type Proof, SHORTEST_DRIVE, stepFor } from "./proof";
import type { Block, CheckState, JobState, ProvePart, RepairState, StationId, StationState } from "./state";
import { STATIONS } from "./state";

/** Facts that the gates rest on. */
type Facts = Pick<
  JobState,
  | "vehicle"
  | "story"
  | "codes"
  | "codesRead"
  | "checks"
  | "findings"
  | "repairs"
  | "offCar"
  | "conditions"
  | "proof"
  | "comeback"
  | "nothingFound"
>;

const standing = (repairs: readonly RepairState[]) => repairs.filter((r) => !r.undone);

/** Everything that blocks closing and handing over, in the order a technician would deal with it. */
export function blocksOf(facts: Facts): JobState["blocks"] {
  const handOver: Block[] = [];
  for (const item of facts.offCar.filter((i) => i.open)) {
    handOver.push({
      station: "prove",
      part: "off-car",
      reason: item.commanded
        ? `Release ${item.what}: nothing is judged while it is commanded`
        : item.swappedBack
          ? `Put the good part back in, the old one is fitted: ${item.swappedBack}`
          : `Put back to normal: ${item.what}`,
    });
  }
  for (const repair of standing(facts.repairs).filter((r) => r.body.permanence === "bypass")) {
    const off = facts.vehicle ? disabledBy(repair.body.places ?? [], layoutOf(facts.vehicle)) : [];
    const unlawful = off.length > 0 ? `. It disables ${off.join(" and ")}: an emission device is not left so` : "";
    handOver.push({
      station: "fix",
      reason: `Undo the bypass, which is no repair: ${repair.body.what}${unlawful}`,
    });
  }
  if (!facts.vehicle) handOver.push({ station: "story", reason: "Describe the vehicle" });
  else if (!facts.vehicle.registration && !facts.vehicle.vin)
    handOver.push({ station: "story", reason: "Type the registration or VIN: which car is it?" });

  const close: Block[] = [...handOver];
  if (!facts.story) close.push({ station: "story", reason: "Write down the complaint" });
  // Residue inside a seal alone says that the seal works: nothing of it is to be repaired.
  for (const finding of facts.findings.filter((f) => !f.repairedBy && !f.setAside && f.body.residue !== "inside")) {
    close.push({ station: "fix", reason: `Repair what was found, or set it aside: ${finding.body.what}` });
  }
  const repaired = standing(facts.repairs).some((r) => r.body.permanence !== "bypass");
  const inspection = facts.story?.purpose === "inspection";
  for (const repair of standing(facts.repairs).filter((r) => r.proposed)) {
    close.push({
      station: "fix",
      reason: `Have a technician or a lead look at it and sign: ${repair.body.what}, proposed as permanent by ${repair.by}`,
    });
  }
  close.push(...resetBlocks(facts));
  if (!repaired) {
    const rest = inspection
      ? inspectionBlocks(facts)
      : facts.nothingFound
        ? nothingFoundBlocks(facts)
        : [{ station: "fix" as const, reason: NOT_REPAIRED }];
    return { close: [...close, ...rest], handOver };
  }
  const { proof } = facts;
  if (proof.cameBack) close.push({ station: "fix", reason: "Repair what is left, or hand it over conditionally: it came back" });
  if (!proof.shown) {
    close.push({
      station: "prove",
      reason: "Hand it over conditionally: no check showed the fault before the repair, so none can show that it is gone",
    });
  }
  close.push(
    ...owedBlocks(facts),
    ...monitorBlocks(proof),
    ...(inspection ? [] : complaintBlocks(proof)),
    ...comebackBlocks(facts),
    ...codeBlocks(proof),
  );
  return { close, handOver };
}

/** Whether anything was measured on the car that proves something. */
const measured = (checks: readonly CheckState[]) =>
  checks.some((c) => !c.onBench && c.verdict.outcome !== "void" && CHECKS[c.check].station === undefined);

/** Gates of an inspection: something measured, and a word on all that it showed. */
function inspectionBlocks({ checks, findings, proof }: Pick<Facts, "checks" | "findings" | "proof">): Block[] {
  if (!measured(checks)) return [{ station: "check", reason: "Smoke a circuit, or read one: nothing is inspected yet" }];
  const recorded = new Set(findings.map((f) => f.body.joint));
  const open = proof.owed.filter((o) => o.missing === "still-bad" && o.askedBy && !recorded.has(o.place));
  return [...new Set(open.map((o) => CHECKS[(o.askedBy as NonNullable<typeof o.askedBy>).check].name))].map((name) => ({
    station: "find" as const,
    reason: `Record what the ${inSentence(name)} showed as found, or set it aside as the customer decided`,
  }));
}

/**
 * Gates of a car that shows nothing wrong: as much must speak for it as for a repair. The complaint tried and not there, in its
 * conditions; the codes cleared, driven away and read again; its own monitor; something measured, since what was tried by hand is but a
 * word; and nothing that was measured bad left unanswered.
 */
function nothingFoundBlocks(facts: Facts): Block[] {
  const { proof } = facts;
  return [
    ...(proof.cameBack
      ? [{ station: "check" as const, reason: "Go on looking: it came back after nothing had been found" }]
      : []),
    ...(measured(facts.checks)
      ? []
      : [{ station: "check" as const, reason: "Read or smoke something: nothing is measured yet" }]),
    ...owedBlocks(facts),
    ...monitorBlocks(proof, "yet"),
    ...complaintBlocks(proof, "Try the complaint in its conditions: nothing is found only where it does not show"),
    ...comebackBlocks(facts),
    ...codeBlocks(proof),
  ];
}

const NOT_REPAIRED = "Repair it, show that nothing is wrong, or hand over conditionally: nothing is repaired yet";
const prove = (reason: string, part?: ProvePart): Block => ({ station: "prove", reason, ...(part ? { part } : {}) });
/** @param customer the same in words for whoever drives it. */
const onRoad = (part: ProvePart, reason: string, customer: string): Block => ({
  ...prove(reason, part),
  onRoad: true,
  customer,
});

const nameOf = ({ askedBy }: Obligation, { vehicle }: Pick<Facts, "vehicle">) => {
  if (!askedBy) return undefined;
  const kind = inSentence(CHECKS[askedBy.check].name);
  const part = askedBy.part && vehicle ? inSentence(jointName(layoutOf(vehicle), askedBy.part)) : askedBy.part;
  return part ? `${kind} of the ${part}` : kind;
};

/** One reason for each check that asked and each way its questions stand unanswered. */
function owedBlocks(facts: Facts): Block[] {
  const open = facts.proof.owed.filter((o) => o.missing !== undefined);
  const groups = new Map<string, Obligation[]>();
  for (const owed of open) {
    const key = [nameOf(owed, facts) ?? owed.question, owed.missing, owed.missing === "never" ? "" : (owed.because ?? "")].join(
      "|",
    );
    groups.set(key, [...(groups.get(key) ?? []), owed]);
  }
  const blocks = [...groups.values()].map((group) => {
    const [first] = group as [Obligation, ...Obligation[]];
    const name = nameOf(first, facts);
    const all = facts.proof.owed.filter((o) => nameOf(o, facts) === name);
    const words = listed(group.map((o) => o.about ?? o.words));
    const step = stepFor(group as [Obligation, ...Obligation[]], facts.vehicle && layoutOf(facts.vehicle));
    const owes = (reason: string): Block => ({ ...prove(reason), ...(step ? { step } : {}) });
    // Nothing of it was answered: the check as a whole is missing; otherwise name what is left.
    const whole = name !== undefined && group.length === all.length;
    // A reason is said by the record it comes from, whichever check had asked.
    const by = first.saidBy && first.saidBy !== first.askedBy?.check ? inSentence(CHECKS[first.saidBy].name) : name;
    switch (first.missing) {
      case "still-bad":
        return owes(`Go on from what the ${by ?? words} shows after the repair: ${first.because}`);
      case "late-bad":
        return owes(
          `Repeat the ${name} (${words}), or say that it was taken before: one that failed came in from a device that had not seen the repair`,
        );
      case "order-unknown":
        return owes(
          `Repeat the ${name ?? "reading"} (${words}): it may have been taken before the repair, which its device had not seen`,
        );
      case "touched":
        return owes(`Re-check ${words}: touched since (${first.because})`);
      case "elsewhere":
        return owes(`Repeat the ${name ?? words} ${first.because}: it was good since, and not as it failed`);
      case "not-sure":
        return owes(`Repeat the ${by ?? "reading"}, not sure yet of ${words}: ${first.because}`);
      case "void":
        return owes(`Repeat the ${name}: the one after the last repair is void${first.because ? ` (${first.because})` : ""}`);
      default:
        if (!first.askedBy) return owes(notShown(group, words, facts));
        if (CHECKS[first.askedBy.check].role === "locates") return owes(`Re-check ${words}: the ${name} pointed there`);
        return owes(whole ? `Repeat the ${name}: ${words}` : `Finish the ${name}: ${words} not shown yet`);
    }
  });
  // In the order that disturbs least: what only reads comes last, so that nothing is taken off after it.
  const reads = ({ step }: Block) => Number(Boolean(step && CHECKS[step.check].onlyReads));
  return blocks.toSorted((a, b) => reads(a) - reads(b));
}

/** Gates for what no record has shown: what a code asks of a check, or places that came off. */
function notShown(group: readonly Obligation[], words: string, { vehicle }: Pick<Facts, "vehicle">): string {
  const codes = group[0]?.answeredBy && CHECKS[group[0].answeredBy].codes;
  return codes && vehicle
    ? codes.missing(
        words,
        group.map((o) => o.place),
        layoutOf(vehicle),
      )
    : `Check that it is seated: ${words}`;
}

/** A few names whole, many as a count. */
function listed(words: readonly string[]): string {
  const SHOWN = 5;
  // A name with a comma in it does not end there.
  const between = words.some((word) => word.includes(",")) ? "; " : ", ";
  return words.length <= SHOWN
    ? words.join(between)
    : `${words.slice(0, SHOWN - 1).join(between)} and ${words.length - SHOWN + 1} more`;
}

/** A fault that is not always there is gone only once it stayed away long enough to say so. */
function comebackBlocks({ comeback }: Pick<Facts, "comeback">): Block[] {
  if (!comeback) return [];
  if (comeback.again) return [prove("Find what is left: it came back on a drive since the last repair", "drive")];
  if (comeback.enough) return [];
  const [asked, so] =
    comeback.kind === "random"
      ? [`${formatNumber(comeback.needed, 0)} km`, `${formatNumber(comeback.counted, 0)} km`]
      : [`${comeback.needed} ${COMEBACK_COUNTS[comeback.kind]}`, `${comeback.counted}`];
  return [
    onRoad(
      "drive",
      `Watch it longer, since it comes and goes: ${so} of ${asked} without the fault`,
      `The fault came and went, so it shows only in use whether it is gone: ${so} of ${asked} without it so far`,
    ),
  ];
}

/** Gates for what was told the ECU before it was so, and what was cleaned without knowing what loaded it. */
function resetBlocks({ proof, repairs }: Pick<Facts, "proof" | "repairs">): Block[] {
  const early = proof.resets.filter((r) => r.told && r.locked);
  const victims = standing(repairs).filter((r) => r.body.culprit === "not-found");
  return [
    ...proof.resets
      .filter((r) => r.zeroedAll)
      .map((r) =>
        prove(
          `Put back what the ECU had, and record what it shows: ${inSentence(r.name)} set too much to zero, ${r.stays}`,
          "resets",
        ),
      ),
    ...early.map((r) => prove(`Correct what was reset too early (${inSentence(r.name)}): ${r.locked}`, "resets")),
    ...victims.map(
      (r): Block => ({
        station: "fix",
        reason: `Find what made it necessary and correct the repair, or hand over conditionally; else it comes again: ${r.body.what}`,
      }),
    ),
  ];
}

function monitorBlocks({ monitor }: Proof, since = "since the repair"): Block[] {
  switch (monitor) {
    case "not-since":
      return [
        onRoad(
          "monitor",
          `Let the car's own EVAP monitor run, then read it: not run ${since}`,
          `The car's own test of its fuel-vapour system has not run ${since}: it runs by itself while the car is used`,
        ),
      ];
    case "failed":
      return [prove("Find what is left: the car's own EVAP monitor ran after the repair and failed", "monitor")];
    case "too-soon":
      return [
        onRoad(
          "monitor",
          "Read the EVAP monitor again after a soak: it was read as passed sooner than it can have run",
          `The car's own test of its fuel-vapour system has not run for certain ${since}: it runs by itself while the car is used`,
        ),
      ];
    default:
      return [];
  }
}

const NOT_MET = {
  load: {
    order: "Drive up a steady climb, or log the boost on a dyno: the complaint comes under load",
    customer: "The fault showed under load: a long climb shows whether it is gone",
  },
  cold: {
    order: "Let it stand, start it cold and drive from there: the complaint comes cold",
    customer: "The fault showed on a cold engine: the next cold starts show whether it is gone",
  },
} as const;

function complaintBlocks(
  { complaint, complaintNeeds }: Proof,
  again = "Try the complaint again: not tried since the last repair",
): Block[] {
  switch (complaint) {
    case "gone":
      return complaintNeeds.map((need) => onRoad("drive", NOT_MET[need].order, NOT_MET[need].customer));
    case "remains":
      return [prove("Go on looking: the complaint remains, whatever the readings say", "complaint")];
    case "order-unknown":
      return [prove("Try the complaint again: it may have been tried before it was last seen", "complaint")];
    default:
      return [prove(again, "complaint")];
  }
}

const SET_UNDER = {
  load: {
    order: "Drive up a steady climb, or let its own monitor run, then read",
    why: "set under load",
    customer: "sets under load: it has not been driven so since the repair",
  },
  cold: {
    order: "Drive from a cold start, or let its own monitor run, then read",
    why: "set on a cold engine",
    customer: "sets on a cold engine: it has not been started cold since the repair",
  },
} as const;

/** The next step each chased code still waits for; codes that wait for the same stand together. */
function codeBlocks({ codes }: Proof): Block[] {
  const waiting = codes.filter((c) => !c.quiet);
  const of = (step: CodeWait["for"]) => waiting.filter((c) => c.waits?.for === step).map((c) => c.code);
  const blocks: Block[] = [];
  if (of("clearing").length > 0)
    blocks.push(prove(`Clear the codes, drive ${SHORTEST_DRIVE} min or more, then read every module again`, "codes"));
  for (const { code, waits } of waiting)
    if (waits?.for === "cure")
      blocks.push(
        prove(
          waits.isNew
            ? `Find what set ${code}, or set it aside with its reason: it is there now, ${waits.status}, and was not before`
            : `Find what is left: ${code} is back, ${waits.status}, after it was cleared`,
          "codes",
        ),
      );
  for (const { code, waits } of waiting)
    if (waits?.for === "conditions")
      blocks.push(
        ...waits.under.map((one) => {
          const { order, why, customer } = SET_UNDER[one];
          return onRoad("drive", `${order} ${code} again: it was ${why}`, `Code ${code} ${customer}`);
        }),
      );
  if (of("drive").length > 0) {
    blocks.push(prove(`Drive ${SHORTEST_DRIVE} min or more, then read the codes: not driven since they were cleared`, "drive"));
  }
  for (const { waits } of waiting.slice(0, 1))
    if (waits?.for === "time")
      blocks.push(
        prove(
          `Say when the codes were cleared and when it was driven, or drive again: ${formatNumber(waits.said, 0)} min do not fit into the ${formatNumber(waits.between, 0)} min since they were cleared`,
          "drive",
        ),
      );
  if (of("reading").length > 0) blocks.push(prove(`Read again after the drive: ${of("reading").join(", ")}`, "codes"));
  for (const { code, waits } of waiting)
    if (waits?.for === "modules") blocks.push(prove(`Read ${waits.modules.join(", ")} again: ${code} was read there`, "codes"));
  return blocks;
}

/** State of every station, and the one that comes next with its reason. */
export function stationsOf(job: Facts & Pick<JobState, "status" | "blocks" | "next" | "inspection" | "nothingFound">): {
  states: Record<StationId, StationState>;
  next: { station: StationId; reason: string };
} {
  const done = job.status !== "open" && job.status !== "review";
  // The look has a station of its own.
  const looked = (c: CheckState) => CHECKS[c.check].station === "look";
  const counted = job.checks.filter((c) => c.verdict.outcome !== "void");
  const measured = counted.some((c) => !looked(c));
  // A survey tells the kind of fault; only a place, shown or found, ends the checking.
  const placed = job.findings.length > 0 || job.checks.some((c) => c.verdict.zones.some((z) => z.state === "leaking"));
  const confirmed = job.findings.some((f) => f.body.confirmed);
  const repaired = standing(job.repairs).length > 0;
  const proveBlocks = job.blocks.close.filter((b) => b.station === "prove");
  const fixBlocks = job.blocks.close.filter((b) => b.station === "fix");
  const pick = (settled: boolean, started: boolean): StationState => (settled ? "settled" : started ? "going-on" : "untouched");
  const states: Record<StationId, StationState> = {
    story: pick(Boolean(job.story && job.vehicle), Boolean(job.vehicle)),
    scan: pick(job.codesRead, false),
    look: pick(counted.some(looked), false),
    suspects: pick(repaired || confirmed, job.codesRead || measured),
    check: pick(
      measured && placed,
      job.checks.some((c) => !looked(c)),
    ),
    find: pick(confirmed, job.findings.length > 0),
    fix: pick(repaired && fixBlocks.length === 0, repaired),
    prove: pick(repaired && proveBlocks.length === 0, repaired && job.checks.some((c) => c.afterRepair === "after")),
    handover: pick(done, false),
  };
  const next = nextOf(states, job);
  if (!done) states[next.station] = "needs-you";
  if (job.status === "review") states.handover = "needs-you";
  return { states, next };
}

const NEXT_REASON: Record<StationId, string> = {
  story: "Write down the complaint and the vehicle's facts",
  scan: "Read the codes of every module",
  look: "Eyes and hands before any tool",
  suspects: "Weigh what could explain it",
  check: "Run the best next check",
  find: "Pin it to one joint and confirm it",
  fix: "Repair what was found",
  prove: "Prove the repair",
  handover: "Everything is proved: hand over",
};

function nextOf(
  states: Record<StationId, StationState>,
  job: Pick<JobState, "blocks" | "status" | "repairs" | "next" | "inspection" | "nothingFound">,
): { station: StationId; reason: string } {
  const [block] = job.blocks.close;
  if (job.status === "review") return { station: "prove", reason: block?.reason ?? NEXT_REASON.prove };
  if (job.status === "closed") return { station: "handover", reason: "Closed" };
  if (job.status === "elsewhere") return { station: "handover", reason: "Closed in another shop" };
  // Once something is repaired, what closing still asks for comes before a station that was passed over.
  if (standing(job.repairs).length > 0) {
    if (block) return { station: block.station, reason: block.reason };
    return { station: "handover", reason: job.status === "handed-over" ? "Handed over: close it" : NEXT_REASON.handover };
  }
  if (job.inspection && states.story === "settled") {
    const [step] = job.inspection.left;
    if (step)
      return { station: "check", reason: `Inspect the ${inSentence(step.circuit)}: ${inSentence(CHECKS[step.check].name)}` };
    return block ? { station: block.station, reason: block.reason } : { station: "handover", reason: "Inspected: hand over" };
  }
  if (job.nothingFound && states.scan === "settled" && !job.inspection)
    return block ? { station: block.station, reason: block.reason } : { station: "handover", reason: "Nothing found: hand over" };
  for (const station of STATIONS) {
    // Suspects are weighed by the app; they never hold up the line by themselves.
    if (station === "suspects" || states[station] === "settled") continue;
    // Passed over for an instrument or a finding, the look does not stand in the way of what comes next.
    if (station === "look" && (states.check !== "untouched" || states.find !== "untouched")) continue;
    const asked = job.blocks.close.find((b) => b.station === station);
    if (station === "fix" && asked) return { station, reason: asked.reason };
    const best = station === "check" ? job.next.find((n) => CHECKS[n.check].station !== "look") : undefined;
    return { station, reason: best ? `Best next check: ${inSentence(best.name)}` : NEXT_REASON[station] };
  }
  return { station: "handover", reason: NEXT_REASON.handover };
}
