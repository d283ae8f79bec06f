"use client";

import { CHECKS } from "@/core/checks";
import { inSentence } from "@/core/sentence";
import { type Advice, confirmMinutes, NOTHING_FOUND, observationWords, PERHAPS_NOTHING } from "@/core/suspects";
import { Button } from "@/ui/button";
import { Tick } from "@/ui/choice";
import { Note } from "@/ui/note";
import { usePreferences } from "../../session/preferences";
import { NotIt, SuspectRow } from "../ledger";
import { StationFrame } from "../station-frame";
import { type Go, useJob } from "../use-job";

/** That the shop's own jobs have moved what is suspected, and the way to look without them. */
function Experience() {
  const { experience } = useJob();
  const { preferences, change } = usePreferences();
  if (!experience) return null;
  return (
    <Tick
      label={`Weighed with the last ${experience.jobs} proved jobs ${experience.of}`}
      checked={preferences.experience}
      onChange={(on) => change({ experience: on })}
    />
  );
}

/** Faults that were measured, and not mended since: facts, and no suspicion. */
function Measured() {
  const { state } = useJob();
  const { sentence } = usePreferences();
  const repaired = state.repairs.some((r) => !r.undone);
  const found = state.checks.filter(
    (c) => c.verdict.outcome === "fail" && !c.onBench && (!repaired || c.afterRepair === "after") && c.verdict.zones.length > 0,
  );
  const facts = [...new Set(found.map((c) => c.verdict.headline))];
  if (facts.length === 0) return null;
  return (
    <Note aria-label="Measured" tone="edge" as="section">
      <p className="font-bold">Measured, whatever explains it</p>
      {facts.map((fact) => (
        <p key={fact}>{sentence(fact)}</p>
      ))}
    </Note>
  );
}

const percent = (share: number) => `${Math.round(100 * share)} %`;

/** What it takes to end with "nothing wrong", while that stands first. */
function NothingWrong({ go }: { go: Go }) {
  const { state } = useJob();
  const [first] = state.suspects;
  if (first?.cause.trait !== "healthy" || first.odds < PERHAPS_NOTHING || state.repairs.some((r) => !r.undone)) return null;
  const [block] = state.blocks.close;
  return (
    <Note aria-label="Nothing wrong" tone="calm" as="section">
      <p>
        <strong>Perhaps nothing is wrong now: {percent(first.odds)}.</strong>{" "}
        {state.nothingFound
          ? "That is enough to end with, once it is proved as a repair is: the complaint tried and not there, the codes cleared, the car driven, the codes read again."
          : `To end with that, ${percent(NOTHING_FOUND)} is asked: by checks, by the complaint tried and not there, by codes that stay away.`}
      </p>
      {state.nothingFound === undefined && state.complaint === undefined && (
        <Button className="mt-3" onClick={() => go("prove")}>
          Try the complaint
        </Button>
      )}
      {state.nothingFound !== undefined && (
        <>
          <p className="mt-1">{block ? `${block.reason}.` : "All of that is recorded."}</p>
          <Button look="primary" className="mt-3" onClick={() => go(block?.station ?? "handover")}>
            {block ? "Go there" : "Hand over"}
          </Button>
        </>
      )}
    </Note>
  );
}

/** The suspect to try by hand before any check, and what came of it in one tap. */
function ByHand({ suspect, toCause, go }: NonNullable<Advice["byHand"]> & { go: Go }) {
  const { shop } = useJob();
  const { cause } = suspect;
  return (
    <Note aria-label="Confirm by hand" tone="calm" as="section">
      <p>
        <strong>Go straight to it: {cause.name}.</strong> In about {confirmMinutes(suspect)} min by hand you know; with it first a
        confirmed cause is about {Math.round(toCause)} min away, and no check gets there sooner.
      </p>
      {cause.cheap && (
        <p className="text-muted">
          {shop.house.cheapSuspect === "swap"
            ? "A cheap part; house method: swap it at once, and read again."
            : "A cheap part: test it, unless it costs less than the test."}
        </p>
      )}
      <div className="mt-3 flex flex-wrap gap-2">
        <Button look="primary" onClick={() => go("find")}>
          It is: record it
        </Button>
        <NotIt cause={cause} />
      </div>
    </Note>
  );
}

/** Suspects that could explain all of it, ranked; and which check is best next, with why it beats the second. */
export function SuspectsStation({ go }: { go: Go }) {
  const { state } = useJob();
  const [first] = state.next;
  if (state.practice && state.suspects.length === 0)
    return (
      <StationFrame title="Suspects" lead="Rank them yourself: what could explain it, and which check is best next?">
        <p className="text-muted">
          A hint (above) tells the ranked suspects with their reasons, until the next check is recorded.
        </p>
      </StationFrame>
    );
  const { byHand } = state;
  const waiting = state.next.filter((n) => n.notNow && n !== first);
  const voids = state.checks.filter((c) => c.verdict.outcome === "void");
  return (
    <StationFrame title="Suspects" lead="Ranked by what the story, the codes and the checks say. Void checks do not count.">
      <Experience />
      <NothingWrong go={go} />
      {byHand && <ByHand {...byHand} go={go} />}
      {first && (
        <Note aria-label="Best next check" tone="live" as="section">
          <p className="text-muted">{byHand ? "Or, as a check" : "Best next check"}</p>
          <p className="text-xl font-bold">{first.name}</p>
          <p className="first-letter:uppercase">{first.notNow ? `Not now: ${first.notNow}` : first.why}.</p>
          {first.beats && <p className="text-muted">Why this one: {first.beats}.</p>}
          <Button look="primary" className="mt-3" onClick={() => go(first.check === "look" ? "look" : "check", first.check)}>
            Go there
          </Button>
        </Note>
      )}
      {waiting.length > 0 && (
        <p className="text-muted">
          Not now:{" "}
          {waiting
            .slice(0, 4)
            .map((n) => `${inSentence(n.name)} (${n.notNow})`)
            .join(", ")}
          .
        </p>
      )}
      <Measured />
      {state.suspects.length === 0 && (
        <p className="text-lg">
          {state.repairs.some((r) => !r.undone)
            ? "Nothing is left to explain: what showed the fault was shown good since."
            : "Nothing to explain yet: a complaint, a code or a reading ranks what could be behind it."}
        </p>
      )}
      <ol aria-label="Ranked suspects" className="flex flex-col gap-1">
        {state.suspects
          .filter((s) => s.odds >= 0.005)
          .map((s) => (
            <SuspectRow key={s.cause.id} suspect={s} />
          ))}
      </ol>
      {state.suspects.some((s) => s.odds < 0.005) && (
        <p className="text-muted">
          Below half a percent each:{" "}
          {state.suspects
            .filter((s) => s.odds < 0.005)
            .map((s) => inSentence(s.cause.name))
            .join(", ")}
          .
        </p>
      )}
      {state.retired.length > 0 && (
        <p className="text-muted">
          Explained by the repair, no longer weighed: {[...new Set(state.retired.map(observationWords))].join(", ")}.
        </p>
      )}
      {voids.length > 0 && (
        <p className="text-muted">
          Void, so not counted: {voids.map((c) => `${inSentence(CHECKS[c.check].name)} (${c.verdict.reasons[0]})`).join("; ")}.
        </p>
      )}
    </StationFrame>
  );
}
