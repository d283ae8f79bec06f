import { CHECKS, jointName } from "../checks";
import { inSentence } from "../sentence";
import { formatNumber } from "../units";
import { layoutOf } from "../vehicle";
import { COMEBACK_COUNTS } from "./comeback";
import { disabledBy } from "./emission";
import { type CodeWait, type Obligation, type Proof, SHORTEST_DRIVE, stepFor } from "./proof";
import type { Block, CheckState, JobState, RepairState, StationId, StationState } from "./state";
import { STATIONS } from "./state";

/** Facts that the gates rest on. */
type Facts = Pick<
  JobState,
  "vehicle" | "story" | "codes" | "codesRead" | "checks" | "findings" | "repairs" | "offCar" | "conditions" | "proof" | "comeback"
>;

const standing = (repairs: readonly RepairState[]) => repairs.filter((r) => !r.undone);

/** Everything that blocks closing and handing over, in the order a technician would deal with it. */
export function blocksOf(facts: Facts): JobState["blocks"] {
  const handOver: Block[] = [];
  for (const item of facts.offCar.filter((i) => i.open)) {
    handOver.push({
      station: "prove",
      reason: item.commanded
        ? `Still commanded: ${item.what}. Release it: nothing is judged while it stands`
        : item.swappedBack
          ? `The old part is back in: ${item.swappedBack}. Put the good one back`
          : `Still off the car: ${item.what}`,
    });
  }
  for (const repair of standing(facts.repairs).filter((r) => r.body.permanence === "bypass")) {
    const off = facts.vehicle ? disabledBy(repair.body.places ?? [], layoutOf(facts.vehicle)) : [];
    const unlawful = off.length > 0 ? `. It disables ${off.join(" and ")}: an emission device is not left so` : "";
    handOver.push({
      station: "fix",
      reason: `A diagnostic bypass is no repair and must be undone: ${repair.body.what}${unlawful}`,
    });
  }
  if (!facts.vehicle) handOver.push({ station: "story", reason: "The vehicle's facts are missing" });
  else if (!facts.vehicle.registration && !facts.vehicle.vin)
    handOver.push({ station: "story", reason: "Which car it is: type its registration or VIN" });

  const close: Block[] = [...handOver];
  if (!facts.story) close.push({ station: "story", reason: "The complaint has not been written down" });
  // Residue inside a seal alone says that the seal works: nothing of it is to be repaired.
  for (const finding of facts.findings.filter((f) => !f.repairedBy && !f.setAside && f.body.residue !== "inside")) {
    close.push({ station: "fix", reason: `Found and not repaired: ${finding.body.what}` });
  }
  const repaired = standing(facts.repairs).some((r) => r.body.permanence !== "bypass");
  const inspection = facts.story?.purpose === "inspection";
  for (const repair of standing(facts.repairs).filter((r) => r.proposed)) {
    close.push({
      station: "fix",
      reason: `${repair.by} proposes it as permanent: a technician or a lead looks at it and signs: ${repair.body.what}`,
    });
  }
  close.push(...resetBlocks(facts));
  if (!repaired) {
    const rest = inspection ? inspectionBlocks(facts) : [{ station: "fix" as const, reason: NOT_REPAIRED }];
    return { close: [...close, ...rest], handOver };
  }
  const { proof } = facts;
  if (proof.cameBack) close.push({ station: "fix", reason: "It came back: repair what is left, or hand it over conditionally" });
  if (!proof.shown) {
    close.push({ station: "prove", reason: "No check showed the fault before the repair, so none can show that it is gone" });
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

/** Gates of an inspection: something measured, and a word on all that it showed. */
function inspectionBlocks({ checks, findings, proof }: Pick<Facts, "checks" | "findings" | "proof">): Block[] {
  const measured = checks.filter((c) => !c.onBench && c.verdict.outcome !== "void" && CHECKS[c.check].station === undefined);
  if (measured.length === 0)
    return [{ station: "check", reason: "Nothing has been inspected yet: smoke a circuit, or read one" }];
  const recorded = new Set(findings.map((f) => f.body.joint));
  const open = proof.owed.filter((o) => o.missing === "still-bad" && o.askedBy && !recorded.has(o.place));
  return [...new Set(open.map((o) => CHECKS[(o.askedBy as NonNullable<typeof o.askedBy>).check].name))].map((name) => ({
    station: "find" as const,
    reason: `What the ${inSentence(name)} showed is neither recorded as found nor set aside as the customer decided`,
  }));
}

const NOT_REPAIRED = "Nothing has been repaired: hand over conditionally, or go on";
const prove = (reason: string): Block => ({ station: "prove", reason });
const onRoad = (reason: string): Block => ({ ...prove(reason), onRoad: true });

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
  return [...groups.values()].map((group) => {
    const [first] = group as [Obligation, ...Obligation[]];
    const name = nameOf(first, facts);
    const all = facts.proof.owed.filter((o) => nameOf(o, facts) === name);
    const words = listed(group.map((o) => o.words));
    const step = stepFor(group as [Obligation, ...Obligation[]], facts.vehicle && layoutOf(facts.vehicle));
    const owes = (reason: string): Block => ({ ...prove(reason), ...(step ? { step } : {}) });
    // Nothing of it was answered: the check as a whole is missing; otherwise name what is left.
    const whole = name !== undefined && group.length === all.length;
    // A reason is said by the record it comes from, whichever check had asked.
    const by = first.saidBy && first.saidBy !== first.askedBy?.check ? inSentence(CHECKS[first.saidBy].name) : name;
    switch (first.missing) {
      case "still-bad":
        return owes(`After the repair the ${by ?? words} still says: ${first.because}`);
      case "late-bad":
        return owes(
          `A failing ${name} came in from a device that had not seen the repair: say that it was taken before, or do it again (${words})`,
        );
      case "order-unknown":
        return owes(
          `${name ? `A ${name}` : "A reading"} may have been taken before the repair: its device had not seen it. Do it again (${words})`,
        );
      case "touched":
        return owes(`Shown good, and touched since (${first.because}): ${words}. Show it again`);
      case "elsewhere":
        return owes(`The ${name ?? words} was shown good since, and not as it failed: show it ${first.because}`);
      case "not-sure":
        return owes(`After the repair the ${by ?? words} is not sure yet of ${words}: ${first.because}`);
      case "void":
        return owes(
          `The ${name} after the last repair is void and counts for nothing: do it again${first.because ? ` (${first.because})` : ""}`,
        );
      default:
        if (!first.askedBy) return owes(notShown(group, words, facts));
        if (CHECKS[first.askedBy.check].role === "locates")
          return owes(`The ${name} pointed there, and no reading since the repair says it is cured: ${words}`);
        return owes(
          whole
            ? `The ${name} has not been repeated after the last repair: ${words}`
            : `The ${name} has not answered yet what it failed at: ${words}`,
        );
    }
  });
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
    : `Not seen seated since it was back on: ${words}`;
}

/** A few names whole, many as a count. */
function listed(words: readonly string[]): string {
  const SHOWN = 5;
  return words.length <= SHOWN
    ? words.join(", ")
    : `${words.slice(0, SHOWN - 1).join(", ")} and ${words.length - SHOWN + 1} more`;
}

/** A fault that is not always there is gone only once it stayed away long enough to say so. */
function comebackBlocks({ comeback }: Pick<Facts, "comeback">): Block[] {
  if (!comeback) return [];
  if (comeback.again) return [prove("It came back on a drive since the last repair")];
  if (comeback.enough) return [];
  const [asked, so] =
    comeback.kind === "random"
      ? [`${formatNumber(comeback.needed, 0)} km`, `${formatNumber(comeback.counted, 0)} km`]
      : [`${comeback.needed} ${COMEBACK_COUNTS[comeback.kind]}`, `${comeback.counted}`];
  return [onRoad(`Not watched long enough for a fault that comes and goes: ${so} of ${asked} without it`)];
}

/** Gates for what was told the ECU before it was so, and what was cleaned without knowing what loaded it. */
function resetBlocks({ proof, repairs }: Pick<Facts, "proof" | "repairs">): Block[] {
  const early = proof.resets.filter((r) => r.told && r.locked);
  const victims = standing(repairs).filter((r) => r.body.culprit === "not-found");
  return [
    ...proof.resets
      .filter((r) => r.zeroedAll)
      .map((r) => prove(`${r.name}, and too much was set to zero: ${r.stays}. Put back what it had, and record what it shows`)),
    ...early.map((r) => prove(`${r.name}, and must not be yet: ${r.locked}`)),
    ...victims.map(
      (r): Block => ({
        station: "fix",
        reason: `What made it necessary was not found, and it comes again: ${r.body.what}. Find it and correct the repair, or hand over conditionally`,
      }),
    ),
  ];
}

function monitorBlocks({ monitor }: Proof): Block[] {
  switch (monitor) {
    case "not-since":
      return [onRoad("The car's own EVAP monitor has not run since the repair: plan it, or hand over conditionally")];
    case "failed":
      return [prove("The car's own EVAP monitor ran after the repair and failed")];
    case "too-soon":
      return [
        onRoad("The EVAP monitor was read as passed sooner than it can have run: it needs a soak after the codes were cleared"),
      ];
    default:
      return [];
  }
}

const NOT_MET = {
  load: "The complaint comes under load, and nothing since the repair asked for it: a steady climb, or the boost logged on a dyno",
  cold: "The complaint comes cold, and the engine was not started cold since the repair: let it stand, and record the drive from there",
} as const;

function complaintBlocks({ complaint, complaintNeeds }: Proof): Block[] {
  switch (complaint) {
    case "gone":
      return complaintNeeds.map((need) => onRoad(NOT_MET[need]));
    case "remains":
      return [prove("Readings may be good, but the complaint remains")];
    case "order-unknown":
      return [prove("The complaint may have been tried before it was last seen: try it again")];
    default:
      return [prove("The complaint has not been tried again after the last repair")];
  }
}

const SET_UNDER = {
  load: "was set under load: record a drive up a steady climb, or its own monitor once it has run, then read it again",
  cold: "was set on a cold engine: record a drive from a cold start, or its own monitor once it has run, then read it again",
} as const;

/** The next step each chased code still waits for; codes that wait for the same stand together. */
function codeBlocks({ codes }: Proof): Block[] {
  const waiting = codes.filter((c) => !c.quiet);
  const of = (step: CodeWait["for"]) => waiting.filter((c) => c.waits?.for === step).map((c) => c.code);
  const blocks: Block[] = [];
  if (of("clearing").length > 0)
    blocks.push(
      prove(
        `The codes have not been cleared after the last repair: clear them, record a drive of ${SHORTEST_DRIVE} min or more, then read every module again`,
      ),
    );
  for (const { code, waits } of waiting)
    if (waits?.for === "cure")
      blocks.push(
        prove(
          waits.isNew
            ? `${code} is there now, ${waits.status}, and was not there before: find what set it, or set it aside with its reason`
            : `${code} is back, ${waits.status}: it was cleared and came again`,
        ),
      );
  for (const { code, waits } of waiting)
    if (waits?.for === "conditions") blocks.push(...waits.under.map((one) => onRoad(`${code} ${SET_UNDER[one]}`)));
  if (of("drive").length > 0) {
    blocks.push(
      prove(`Not driven since the codes were cleared: record a drive of ${SHORTEST_DRIVE} min or more, then read them`),
    );
  }
  for (const { waits } of waiting.slice(0, 1))
    if (waits?.for === "time")
      blocks.push(
        prove(
          `Driven for ${formatNumber(waits.said, 0)} min, with ${formatNumber(waits.between, 0)} min for it since the codes were cleared: say when they were cleared and when it was driven, or drive again`,
        ),
      );
  if (of("reading").length > 0) blocks.push(prove(`Read again after the drive: ${of("reading").join(", ")}`));
  for (const { code, waits } of waiting)
    if (waits?.for === "modules") blocks.push(prove(`${code} was read in ${waits.modules.join(", ")}: read that module again`));
  return blocks;
}

/** State of every station, and the one that comes next with its reason. */
export function stationsOf(job: Facts & Pick<JobState, "status" | "blocks" | "next">): {
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
  job: Pick<JobState, "blocks" | "status" | "repairs" | "next">,
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
  for (const station of STATIONS) {
    // Suspects are weighed by the app; they never hold up the line by themselves.
    if (station === "suspects" || states[station] === "settled") continue;
    const asked = job.blocks.close.find((b) => b.station === station);
    if (station === "fix" && asked) return { station, reason: asked.reason };
    const best = station === "check" ? job.next.find((n) => CHECKS[n.check].station !== "look") : undefined;
    return { station, reason: best ? `Best next check: ${inSentence(best.name)}` : NEXT_REASON[station] };
  }
  return { station: "handover", reason: NEXT_REASON.handover };
}
