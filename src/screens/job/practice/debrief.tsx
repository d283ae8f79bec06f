"use client";

import { CircleCheck, CircleX } from "lucide-react";
import { useEffect, useState } from "react";
import type { CouldTell, PlayedCheck, Debrief as Reckoned } from "@/core/practice/debrief";
import { ruledOutShare } from "@/core/suspects";
import { Button } from "@/ui/button";
import { DividedList } from "@/ui/divided-list";
import { ErrorNote } from "@/ui/field";
import { Note } from "@/ui/note";
import { bayWorker } from "../../practice/bay-worker";
import { usePreferences } from "../../session/preferences";
import { useOverlay } from "../overlay";
import { useJob } from "../use-job";
import { useBay } from "./use-bay";

/** The end of a case: what was wrong, the way it was found beside the best way, what it cost, and one thing to do better. */
export function Debrief() {
  const bay = useBay();
  return bay?.over ? <ToldAtTheEnd code={bay.code} /> : null;
}

function ToldAtTheEnd({ code }: { code: string }) {
  const { entries, shop, state, append } = useJob();
  const { format } = usePreferences();
  const { setOverlay } = useOverlay();
  const [told, setTold] = useState<Reckoned>();
  const [error, setError] = useState<string>();
  useEffect(() => {
    let left = false;
    void bayWorker()
      .debrief(code, entries, shop)
      .then((answer) => {
        if (!left) setTold(answer);
      });
    return () => {
      left = true;
    };
  }, [code, entries, shop]);
  // What was wrong stands on the air map.
  useEffect(() => {
    if (!told) return;
    setOverlay({ seen: told.faults.flatMap((f) => f.joint ?? []) });
    return () => setOverlay({});
  }, [told, setOverlay]);
  if (!told) return <p className="text-muted">Working out how it was played…</p>;
  const later = state.outcomes.length > 0;
  const aWeekLater = async () => {
    const left = told.faults.filter((f) => !f.cured).map((f) => f.name);
    setError(
      await append({
        kind: "outcome",
        body: told.comeback
          ? { result: "came-back", note: `The ferry brought it back within the week: ${left.join("; ")}` }
          : { result: "held", note: "A week later nothing had come back" },
      }),
    );
  };
  return (
    <section aria-label="What was wrong" className="flex flex-col gap-4">
      <div className={`border-l-4 px-4 py-3 ${told.won ? "border-calm bg-calm-soft" : "border-ember bg-ember-soft"}`}>
        <p className={`text-xl font-bold ${told.won ? "text-calm" : "text-ember"}`}>
          {told.won ? "Found and cured" : told.comeback ? "It will come back" : "Still in it"}
        </p>
        <ul className="mt-1 flex flex-col gap-1">
          {told.faults.map((f) => (
            <li key={f.name} className="flex items-center gap-2">
              {f.cured ? (
                <CircleCheck aria-label="cured" size={18} className="shrink-0 text-calm" />
              ) : (
                <CircleX aria-label="not cured" size={18} className="shrink-0 text-ember" />
              )}
              <span>
                {f.name}
                {f.hole && <span className="text-muted"> · as a hole of {format(f.hole)}</span>}
              </span>
            </li>
          ))}
        </ul>
      </div>
      <Note tone="live" as="p">
        <span className="text-muted">Next time: </span>
        <strong>{told.better}</strong>
      </Note>
      <dl className="grid grid-cols-2 gap-x-6 gap-y-2 sm:grid-cols-5">
        {[
          ["Minutes of work", String(told.minutes)],
          ["Spent", `${told.money} marks`],
          ["Hints", String(told.hints)],
          ["Void checks", String(told.voids)],
          ["Came back", told.comeback ? "yes" : "no"],
        ].map(([name, value]) => (
          <div key={name}>
            <dt className="text-sm text-muted">{name}</dt>
            <dd className="text-2xl font-bold tabular-nums">{value}</dd>
          </div>
        ))}
      </dl>
      {told.mishaps.length > 0 && <Told title="What went wrong on the way" list={told.mishaps} />}
      {told.misled.length > 0 && <Told title="What led away from it" list={told.misled} />}
      {told.cautionsSkipped.length > 0 && <Told title="Cautions not read first" list={told.cautionsSkipped} />}
      <Path path={told.path} />
      {later ? (
        <p className="text-muted">{state.outcomes.at(-1)?.note}</p>
      ) : (
        <div>
          <Button onClick={() => void aWeekLater()}>A week later</Button>
        </div>
      )}
      {error && <ErrorNote>{error}</ErrorNote>}
    </section>
  );
}

function Told({ title, list }: { title: string; list: readonly string[] }) {
  return (
    <div>
      <h3 className="text-sm text-muted">{title}</h3>
      <ul className="list-disc pl-5">
        {list.map((line) => (
          <li key={line} className="first-letter:uppercase">
            {line}
          </li>
        ))}
      </ul>
    </div>
  );
}

const percent = (bits: number) => `${Math.round(100 * ruledOutShare(bits))} %`;
const ruled = (bits: number) =>
  bits < -0.05 ? "pointed away from it" : bits < 0.07 ? "ruled out little" : `ruled out ${percent(bits)}`;

/** Information that each of the best checks could have told as things stood: what was to be expected, and what this very car would have said. */
function CouldHaveTold({ could }: { could: readonly CouldTell[] }) {
  return (
    <details className="sm:col-span-2">
      <summary className="flex min-h-11 cursor-pointer items-center gap-2 text-sm text-muted">
        What each check could have ruled out
      </summary>
      <table className="w-full text-sm">
        <thead>
          <tr className="text-left text-muted">
            <th className="py-1 font-normal">Check</th>
            <th className="py-1 text-right font-normal">Minutes</th>
            <th className="py-1 text-right font-normal">Expected</th>
            <th className="py-1 text-right font-normal">On this car</th>
          </tr>
        </thead>
        <tbody>
          {could.map((c) => (
            <tr key={c.name} className="border-t border-line">
              <td className="py-1">{c.name}</td>
              <td className="py-1 text-right tabular-nums">{Math.round(c.minutes)}</td>
              <td className="py-1 text-right tabular-nums">{percent(c.expected)}</td>
              <td className={`py-1 text-right tabular-nums ${c.inHindsight < -0.05 ? "text-ember" : ""}`}>
                {c.inHindsight < -0.05 ? "misleads" : percent(c.inHindsight)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}

/** Every check with what it told, what it could have told, and the best that could have been done then. */
function Path({ path }: { path: readonly PlayedCheck[] }) {
  if (path.length === 0) return <p className="text-muted">Nothing was checked before it was worked on.</p>;
  const most = Math.max(0.1, ...path.flatMap((p) => [p.bits, p.couldTell ?? 0, p.best?.bits ?? 0]));
  const bar = (bits: number, colour: string) => (
    <span aria-hidden className={`block h-2 rounded-sm ${colour}`} style={{ width: `${Math.max(1, (100 * bits) / most)}%` }} />
  );
  return (
    <div>
      <h3 className="text-sm text-muted">The way it was found, beside the best way as things stood</h3>
      <DividedList as="ol" className="mt-1">
        {path.map((p, i) => (
          <li key={p.entry} className="grid gap-x-4 gap-y-1 py-2 sm:grid-cols-[minmax(0,1fr)_14rem]">
            <div className="min-w-0">
              <p>
                <span className="text-muted">{i + 1} · </span>
                <strong>{p.name}</strong>
                <span className="text-muted"> · {Math.round(p.minutes)} min</span>
                {p.outcome === "void" && <span className="font-bold text-amber"> · void</span>}
              </p>
              <p className="text-muted">{p.headline}</p>
              {p.best && p.best.check !== p.check && (
                <p className="text-sm">
                  Best then: {p.best.name}, {ruled(p.best.bits)} in {Math.round(p.best.minutes)} min
                </p>
              )}
            </div>
            <div className="flex flex-col justify-center gap-1 text-sm">
              <span>
                {ruled(p.bits)}
                {p.couldTell !== undefined && <span className="text-muted">, expected: {ruled(p.couldTell)}</span>}
              </span>
              {bar(p.bits, "bg-accent")}
              {p.best && bar(p.best.bits, "bg-edge")}
            </div>
            {p.could.length > 0 && <CouldHaveTold could={p.could} />}
          </li>
        ))}
      </DividedList>
    </div>
  );
}
