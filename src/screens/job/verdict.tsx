"use client";

import { memo } from "react";
import {
  CHECKS,
  type CheckId,
  intervalText,
  type Measure,
  measureText,
  type Outcome,
  type Verdict,
  verdictWord,
} from "@/core/checks";
import type { CheckState } from "@/core/journal";
import { inSentence } from "@/core/sentence";
import { usePreferences } from "../session/preferences";
import { Thumbnails } from "./pictures";
import { shortTime } from "./short-time";
import { useJob } from "./use-job";

const EDGES: Record<Outcome, string> = {
  pass: "border-calm bg-calm-soft",
  fail: "border-ember bg-ember-soft",
  unsure: "border-amber bg-amber-soft",
  void: "border-edge bg-raised",
};
const INKS: Record<Outcome, string> = { pass: "text-calm", fail: "text-ember", unsure: "text-amber", void: "text-muted" };

/** The verdict: word, headline, numbers with interval and limit, then why. */
export function VerdictPanel({ check, verdict, title }: { check: CheckId; verdict: Verdict; title?: string }) {
  const { sentence } = usePreferences();
  return (
    <section aria-label={title ?? "Verdict"} className={`border-l-4 px-4 py-3 ${EDGES[verdict.outcome]}`}>
      <p className={`text-lg font-bold ${INKS[verdict.outcome]}`}>{verdictWord(CHECKS[check], verdict)}</p>
      <p className="text-lg">{sentence(verdict.headline)}</p>
      {verdict.measures.length > 0 && (
        <dl className="mt-2 flex flex-col gap-1">
          {verdict.measures.map((m) => (
            <MeasureRow key={m.name} measure={m} />
          ))}
        </dl>
      )}
      {limitsOf(verdict).map((limit) => (
        <p key={limit} className="text-muted">
          {sentence(limit)}
        </p>
      ))}
      {verdict.reasons.length > 0 && (
        <ul className="mt-2 list-disc pl-5 text-muted">
          {verdict.reasons.map((reason) => (
            <li key={reason}>{sentence(reason)}</li>
          ))}
        </ul>
      )}
    </section>
  );
}

function MeasureRow({ measure }: { measure: Measure }) {
  const { number, reading } = usePreferences();
  return (
    <div className="flex flex-wrap gap-x-3">
      <dt className="text-muted">{measure.name}</dt>
      <dd>
        <strong>{measureText(measure, { quantity: reading, number })}</strong>
        {intervalText(measure, number)}
      </dd>
    </div>
  );
}

/** Each limit that a number was held against, once, with where it comes from. */
const limitsOf = (verdict: Verdict) => {
  const limited = verdict.measures.filter((m) => m.limit);
  const text = (m: Measure) => `${m.limit}${m.limitSource ? ` (${m.limitSource})` : ""}`;
  const [only, ...others] = new Set(limited.map(text));
  if (only === undefined) return [];
  // One limit for all is said once; several name what each is held against.
  return others.length === 0 ? [`Limit: ${only}`] : limited.map((m) => `Limit, ${inSentence(m.name)}: ${text(m)}`);
};

const AFTER_WORDS: Record<CheckState["afterRepair"], string> = {
  "no-repair": "",
  before: "before the repair",
  after: "after the repair",
  unknown: "order to the repair unknown: its device had not seen it",
};

/** Every check of a kind so far, newest first; void ones stay, marked. */
export const VerdictList = memo(function VerdictList({ kind }: { kind: CheckId }) {
  const { state } = useJob();
  const list = state.checks.filter((c) => c.check === kind).toReversed();
  if (list.length === 0) return null;
  return (
    <section aria-label={`${CHECKS[kind].name}, so far`} className="flex flex-col gap-3">
      <h3 className="text-lg font-bold">So far</h3>
      {list.map((c) => (
        <div key={c.entry}>
          <p className="mb-1 text-sm text-muted">
            {shortTime(c.at)} · {c.by}
            {AFTER_WORDS[c.afterRepair] && ` · ${AFTER_WORDS[c.afterRepair]}`}
          </p>
          <VerdictPanel check={c.check} verdict={c.verdict} />
          <Thumbnails pictures={c.pictures ?? []} />
          {c.wasShown && (
            <p className="mt-1 text-sm text-amber">
              Was shown as “{c.wasShown.headline}”. Under today's rules it would now read as above.
            </p>
          )}
        </div>
      ))}
    </section>
  );
});
