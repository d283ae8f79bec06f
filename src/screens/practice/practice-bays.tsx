"use client";

import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import type { Family } from "@/core/faults";
import { type CaseSpec, CODE_FAMILIES, LEVELS, type Level } from "@/core/practice/code";
import type { PlayedCase } from "@/core/practice/debrief";
import { Button } from "@/ui/button";
import { Choice } from "@/ui/choice";
import { DividedList } from "@/ui/divided-list";
import { ErrorNote, SelectField, TextField } from "@/ui/field";
import { Form } from "@/ui/form";
import { PageLink } from "@/ui/page-link";
import { newIds, openJob } from "../new-job/open-job";
import { getJson } from "../session/api";
import { PageHead } from "../session/page-head";
import { usePerson } from "../session/person";
import { bayWorker } from "./bay-worker";
import { Compose } from "./compose";
import { FAMILY_NAMES } from "./family-words";

const ANY = "any";
const FAMILIES: readonly (readonly [string, string])[] = [
  [ANY, "Whatever comes in"],
  ...CODE_FAMILIES.map((id) => [id, FAMILY_NAMES[id]] as const),
];
const LEVEL_OPTIONS = Object.entries(LEVELS).map(([id, text]) => [id, text] as const);

/** Opens a case's car in a bay of its own and goes there. */
function usePlay() {
  const router = useRouter();
  const { person, ask } = usePerson();
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<string>();
  const play = async (codeOf: () => Promise<string>) => {
    if (!person) return ask();
    setBusy(true);
    setError(undefined);
    try {
      const { code, facts, story } = await bayWorker().arrive(await codeOf());
      const ids = newIds();
      const bench = await openJob(
        ids,
        [
          { kind: "vehicle", body: facts },
          { kind: "story", body: story },
        ],
        person,
        code,
      );
      router.push(bench);
    } catch (e) {
      setError((e as Error).message);
      setBusy(false);
    }
  };
  return { play, busy, error };
}

/** Cases that whoever is in may see of what was played: their own, and a lead everybody's. */
function usePlayed(person: string): { played: readonly PlayedCase[]; wrong?: string; pending: boolean } {
  const [seen, setSeen] = useState<{ played: readonly PlayedCase[]; wrong?: string; by?: string }>({ played: [] });
  useEffect(() => {
    let left = false;
    setSeen(person ? { played: [] } : { played: [], by: person });
    if (person)
      getJson<PlayedCase[]>("practice").then(
        (played) => !left && setSeen({ played, by: person }),
        (e: Error) => !left && setSeen({ played: [], by: person, wrong: e.message }),
      );
    return () => {
      left = true;
    };
  }, [person]);
  return { ...seen, pending: seen.by !== person };
}

/** The practice bays: take a car, play a code, put a case together, and how it went so far. */
export function PracticeBays() {
  const { person } = usePerson();
  const { played, wrong, pending } = usePlayed(person);
  const [family, setFamily] = useState<string>(ANY);
  const [level, setLevel] = useState<string>("1");
  const [code, setCode] = useState("");
  const { play, busy, error } = usePlay();
  const draw = () => {
    const families = CODE_FAMILIES;
    const any = families[Math.floor(Math.random() * families.length)] as Family;
    const spec: CaseSpec = {
      family: family === ANY ? any : (family as Family),
      level: Number(level) as Level,
      seed: Math.floor(Math.random() * 2 ** 20),
    };
    return bayWorker().code(spec);
  };
  const open = played.filter((p) => !p.over);
  return (
    <div className="mx-auto flex max-w-5xl flex-col gap-6 p-4 sm:p-6">
      <PageHead title="Practice bays" />
      <main className="flex flex-col gap-8">
        <p className="max-w-prose text-muted">
          A simulated car with a hidden fault, on the same bench as a real one. Nothing here reaches real jobs or their figures.
          {person &&
            ` Played so far: ${played.filter((p) => p.over && p.by === person).length}, cured ${played.filter((p) => p.won && p.by === person).length}.`}
        </p>
        {open.length > 0 && (
          <section aria-label="Bays in use">
            <h2 className="mb-2 text-lg font-bold">Bays in use</h2>
            <DividedList>
              {open.map((p) => (
                <li key={p.jobId}>
                  <PageLink
                    href={`/jobs/${p.jobId}`}
                    className="flex min-h-11 flex-wrap items-center gap-x-4 py-2 hover:bg-raised"
                  >
                    <strong>Practice {p.number}</strong>
                    <span>{p.vehicle}</span>
                    <span className="text-muted">
                      {p.by} · <span className="font-mono text-sm">{p.code}</span> · {p.minutes} min so far
                    </span>
                  </PageLink>
                </li>
              ))}
            </DividedList>
          </section>
        )}
        {/* What stands above may still come: until then nothing here can be pressed that would move from under the finger. */}
        <div className={`grid items-start gap-8 lg:grid-cols-2 ${pending ? "invisible" : ""}`}>
          <section aria-label="New case" className="flex flex-col gap-3">
            <h2 className="text-lg font-bold">New case</h2>
            <div className="max-w-md">
              <SelectField
                label="What is it about"
                options={FAMILIES}
                value={family}
                onChange={(e) => setFamily(e.target.value)}
              />
            </div>
            <Choice label="How hard" options={LEVEL_OPTIONS} value={level} onChange={setLevel} />
            <div>
              <Button look="primary" disabled={busy} onClick={() => void play(draw)}>
                {busy ? "Starting…" : "Start the case"}
              </Button>
            </div>
          </section>
          <Form aria-label="Play a code" className="flex flex-col items-start gap-3" onSubmit={() => void play(async () => code)}>
            <h2 className="text-lg font-bold">Play a code</h2>
            <div className="w-full max-w-sm">
              <TextField
                label="The case's code"
                hint="As somebody gave it to you: the same car, the same fault"
                value={code}
                onChange={(e) => setCode(e.target.value)}
                className="font-mono uppercase"
              />
            </div>
            <Button type="submit" disabled={busy || !code.trim()}>
              Play this code
            </Button>
          </Form>
        </div>
        {error && <ErrorNote>{error}</ErrorNote>}
        <Compose />
        {wrong && <ErrorNote>{wrong}</ErrorNote>}
        {person ? (
          <Record played={played.filter((p) => p.over)} />
        ) : (
          <p className="text-muted">Results so far is between you and the lead: sign in to see yours.</p>
        )}
      </main>
    </div>
  );
}

/** How everybody's finished cases went, family by family, and each case by itself: several who played one code stand beside each other. */
function Record({ played }: { played: readonly PlayedCase[] }) {
  const people = [...new Set(played.map((p) => p.by))];
  const { person } = usePerson();
  const [chosen, setChosen] = useState<string>();
  const who = chosen ?? (person && people.includes(person) ? person : people[0]);
  if (played.length === 0) return null;
  const own = played.filter((p) => p.by === who);
  const families = CODE_FAMILIES.flatMap((family) => {
    const list = own.filter((p) => p.family === family);
    if (list.length === 0) return [];
    const mean = (of: (p: PlayedCase) => number) => Math.round(list.reduce((sum, p) => sum + of(p), 0) / list.length);
    return [
      { family, list, won: list.filter((p) => p.won).length, minutes: mean((p) => p.minutes), money: mean((p) => p.money) },
    ];
  });
  return (
    <section aria-label="Results" className="flex flex-col gap-3">
      <h2 className="text-lg font-bold">Results</h2>
      <div className="max-w-xs">
        <SelectField
          label="Whose record"
          options={people.map((p) => [p, p] as const)}
          value={who}
          onChange={(e) => setChosen(e.target.value)}
        />
      </div>
      <table className="w-full text-left tabular-nums">
        <thead className="text-sm text-muted">
          <tr>
            <th className="py-1 pr-4 font-normal">Family</th>
            <th className="py-1 pr-4 font-normal">Found and cured</th>
            <th className="py-1 pr-4 font-normal max-sm:hidden">Minutes, on average</th>
            <th className="py-1 font-normal">Marks, on average</th>
          </tr>
        </thead>
        <tbody>
          {families.map((f) => (
            <tr key={f.family} className="border-t border-line">
              <td className="py-2 pr-4">{FAMILY_NAMES[f.family]}</td>
              <td className="py-2 pr-4">
                {f.won} of {f.list.length}
              </td>
              <td className="py-2 pr-4 max-sm:hidden">{f.minutes} min</td>
              <td className="py-2">{f.money} marks</td>
            </tr>
          ))}
        </tbody>
      </table>
      <DividedList>
        {own.map((p) => {
          const others = played.filter((o) => o.code === p.code && o.jobId !== p.jobId);
          return (
            <li key={p.jobId}>
              <PageLink href={`/jobs/${p.jobId}`} className="flex min-h-11 flex-wrap items-center gap-x-4 py-2 hover:bg-raised">
                <strong className={p.won ? "text-calm" : "text-ember"}>{p.won ? "Cured" : "Came back"}</strong>
                <span>{p.vehicle}</span>
                <span className="text-muted">
                  <span className="font-mono text-sm">{p.code}</span> · {p.minutes} min · {p.money} marks
                  {others.map((o) => ` · ${o.by}: ${o.won ? "cured" : "came back"}, ${o.minutes} min`).join("")}
                </span>
              </PageLink>
            </li>
          );
        })}
      </DividedList>
    </section>
  );
}
