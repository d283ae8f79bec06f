"use client";

import type { ReactNode } from "react";
import { CHECKS } from "@/core/checks";
import type { Family } from "@/core/faults";
import { ENOUGH, type Held, type Searched, type Voided, type WhatWeKnow } from "@/core/lessons";
import { FEWEST_PROOFS, HOUSE_QUESTIONS, type Proof, proofDrift } from "@/core/shop/settings";
import type { LearnedEngine } from "@/core/suspects";
import { LinkButton } from "@/ui/button";
import { DividedList } from "@/ui/divided-list";
import { FigureTable } from "@/ui/figure-table";
import { Behind } from "../board/behind";
import { FAMILY_NAMES } from "../practice/family-words";
import { PageHead } from "../session/page-head";
import { usePreferences } from "../session/preferences";
import { CameTrue } from "./came-true";

const NOT_YET = "not enough yet";

/** Statistics from this shop's own jobs of how well it works: each figure with its interval and what it rests on. */
export function WhatWeKnowScreen({
  behind,
  known,
  learned,
  proofs,
}: {
  behind: number;
  known: WhatWeKnow;
  learned: readonly LearnedEngine[];
  proofs: Readonly<Record<string, readonly Proof[]>>;
}) {
  return (
    <div className="mx-auto flex max-w-5xl flex-col gap-8 p-4 sm:p-6">
      <PageHead title="What we know">
        <LinkButton href="/shop">Shop</LinkButton>
      </PageHead>
      <main className="flex flex-col gap-10">
        <Behind jobs={behind} />
        <p className="max-w-3xl text-lg">
          From {known.jobs === 1 ? "one job" : `${known.jobs} jobs`} on real cars here, {known.proved} of them found, repaired and
          proved to the end. Practice counts nowhere. Every range holds the truth 95 times in 100; where too little was counted,
          nothing is claimed.
        </p>
        <CameTrue tenths={known.tenths} />
        <Part
          title="What moves the suspects"
          lead="Proved jobs are counted over the trade's weights, which are worth 20 jobs; four times either way is the most. What came back counts no more. In a job it is said as a reason, and switched off at a tap."
        >
          <LearnedList learned={learned} />
        </Part>
        <Part
          title="How long it takes to find"
          lead="Working time from opening a job to the place that was repaired and proved; breaks over half an hour are not counted."
        >
          <SearchTimes searched={known.searched} />
        </Part>
        <Part title="What held" lead="Repairs by what was heard of them since: of those nobody heard of nothing is claimed.">
          <HeldTable title="By how lasting it was meant" rows={known.held.lasting} />
          <HeldTable title="By what was done to the part: renewed against cleaned" rows={known.held.part} />
          <HeldTable title="By why it had failed" rows={known.held.cause} />
        </Part>
        <Part title="Checks that proved nothing" lead="How often a check was void, and why: each is time spent for no evidence.">
          <Voids voided={known.voided} />
        </Part>
        <Part
          title="Machines against their proof"
          lead="What each showed with its hose clamped shut, proof after proof, as a share of its rated pressure."
        >
          <Drifts proofs={proofs} />
        </Part>
      </main>
    </div>
  );
}

function Part({ title, lead, children }: { title: string; lead: string; children: ReactNode }) {
  return (
    <section aria-label={title} className="flex flex-col gap-3">
      <h2 className="text-xl font-bold">{title}</h2>
      <p className="max-w-3xl text-muted">{lead}</p>
      {children}
    </section>
  );
}

function LearnedList({ learned }: { learned: readonly LearnedEngine[] }) {
  const { number } = usePreferences();
  if (learned.length === 0) return <Nothing>Not enough yet: five proved jobs of one engine move its suspects.</Nothing>;
  return (
    <DividedList>
      {learned.map(({ engine, jobs, moved }) => (
        <li key={engine} className="grid gap-x-6 py-2 sm:grid-cols-[16rem_minmax(0,1fr)]">
          <p>
            {engine}
            <span className="block text-muted">{jobs} proved jobs</span>
          </p>
          <ul>
            {moved.map(({ name, factor, says }) => (
              <li key={name}>
                {name}:{" "}
                {factor >= 1
                  ? `${number(factor, 1)} times as likely as the trade has it`
                  : `1/${number(1 / factor, 1)} as likely as the trade has it`}
                , <span className="text-muted">{says}</span>
              </li>
            ))}
          </ul>
        </li>
      ))}
    </DividedList>
  );
}

const Nothing = ({ children }: { children: ReactNode }) => <p className="text-muted">{children}</p>;

function SearchTimes({ searched }: { searched: readonly Searched[] }) {
  const { number } = usePreferences();
  if (searched.length === 0) return <Nothing>No fault was found, repaired and proved yet.</Nothing>;
  const name = ({ family, school }: Searched) =>
    school ? (
      <span className="pl-6 text-muted">
        {HOUSE_QUESTIONS[school.question].asks}: {school.name}
      </span>
    ) : (
      FAMILY_NAMES[family as Family]
    );
  return (
    <FigureTable
      caption={`The middle of the times, from ${ENOUGH.searches} jobs on`}
      heads={["Faults of", "Jobs", "Minutes"]}
      rows={searched.map((s) => [
        name(s),
        s.jobs,
        s.minutes ? `${number(s.minutes.middle, 0)} min (${number(s.minutes.low, 0)} to ${number(s.minutes.high, 0)})` : NOT_YET,
      ])}
    />
  );
}

/** A share with its interval: "20 % (4 to 62)". */
function useShare() {
  const { number } = usePreferences();
  return ({ share, low, high }: { share: number; low: number; high: number }) =>
    `${number(100 * share, 0)} % (${number(100 * low, 0)} to ${number(100 * high, 0)})`;
}

function HeldTable({ title, rows }: { title: string; rows: readonly Held[] }) {
  const share = useShare();
  if (rows.length === 0) return <Nothing>{title}: nothing was said of it yet.</Nothing>;
  return (
    <FigureTable
      caption={`${title}, from ${ENOUGH.repairs} on of which something was heard`}
      heads={["Repairs", "Made", "Came back, of those heard of"]}
      rows={rows.map((r) => [r.name, r.made, `${r.cameBack} of ${r.heard}${r.share ? `: ${share(r.share)}` : `, ${NOT_YET}`}`])}
    />
  );
}

function Voids({ voided }: { voided: readonly Voided[] }) {
  const share = useShare();
  if (voided.length === 0) return <Nothing>None was void.</Nothing>;
  return (
    <DividedList>
      {voided.map((v) => (
        <li key={v.check} className="grid gap-x-6 py-2 sm:grid-cols-[16rem_minmax(0,1fr)]">
          <p>
            <strong className="font-normal">{CHECKS[v.check].name}</strong>
            <span className="block text-muted">
              {v.voids} of {v.of} void: {share(v.share)}
            </span>
          </p>
          <ul>
            {v.whys.slice(0, 3).map(({ why, times }) => (
              <li key={why}>
                {why.slice(0, 1).toUpperCase()}
                {why.slice(1)}
                {times > 1 && ` (${times} times)`}
              </li>
            ))}
          </ul>
        </li>
      ))}
    </DividedList>
  );
}

function Drifts({ proofs }: { proofs: Readonly<Record<string, readonly Proof[]>> }) {
  const { number } = usePreferences();
  const machines = Object.entries(proofs);
  if (machines.length === 0) return <Nothing>No machine was proved on a real car yet.</Nothing>;
  const percent = (share: number) => `${number(100 * share, 0)} %`;
  return (
    <FigureTable
      caption={`From ${FEWEST_PROOFS} proofs on`}
      heads={["Machine", "Proofs", "The last one", "Over all of them"]}
      rows={machines.map(([machine, list]) => {
        const drift = proofDrift(list);
        return [
          machine,
          list.length,
          percent((list.at(-1) as Proof).share),
          list.length < FEWEST_PROOFS ? (
            NOT_YET
          ) : drift ? (
            <span key="drift" className="text-amber">
              drifts: down by {percent(drift.fall)}. Look at fluid, filter and hose
            </span>
          ) : (
            "holds"
          ),
        ];
      })}
    />
  );
}
