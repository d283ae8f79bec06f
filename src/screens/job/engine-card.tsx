"use client";

import { createContext, type ReactNode, useContext, useEffect, useState } from "react";
import { type CheckId, jointName } from "@/core/checks";
import type { EngineCard, KnownGood } from "@/core/journal";
import { inSentence } from "@/core/sentence";
import { formatNumber } from "@/core/units";
import { engineOf } from "@/core/vehicle";
import { getJson } from "../session/api";
import { usePreferences } from "../session/preferences";
import { Thumbnail } from "./pictures";
import { useJob } from "./use-job";

const Card = createContext<EngineCard | undefined>(undefined);

/** What the shop knows of this engine, fetched once the vehicle is described; without the server there is none. */
export function EngineCardProvider({ children }: { children: ReactNode }) {
  const { id, state } = useJob();
  const [card, setCard] = useState<EngineCard>();
  const engine = state.vehicle && !state.practice ? engineOf(state.vehicle) : "";
  useEffect(() => {
    let left = false;
    setCard(undefined);
    if (engine)
      getJson<EngineCard | null>(`jobs/${id}/engine`).then(
        (known) => left || setCard(known ?? undefined),
        () => {},
      );
    return () => {
      left = true;
    };
  }, [id, engine]);
  return <Card.Provider value={card}>{children}</Card.Provider>;
}

const jobs = (values: KnownGood["values"]) => values.map((v) => v.job).join(", ");

/** A reading on sound engines of this kind: a band where they agree, else each by itself. */
function useKnownWords(): (known: KnownGood) => string {
  const { number } = usePreferences();
  return ({ name, unit, kind, band, values }) => {
    const shown = (value: number) => number(value, Math.abs(value) >= 100 ? 0 : Math.abs(value) >= 10 ? 1 : 2);
    const of = `${unit}${kind ? ` ${kind}` : ""}`;
    if (band) {
      const ends = [...new Set(band.map(shown))];
      return `${name} ${ends.join(" to ")} ${of} (jobs ${jobs(values)})`;
    }
    const each = values.map((v) => `${shown(v.value)} (job ${v.job})`).join(", ");
    return `${name} ${each} ${of}${values.length > 2 ? ": they do not agree" : ""}`;
  };
}

/** What this check read on sound engines of this kind. */
export function KnownGoodHere({ check }: { check: CheckId }) {
  const card = useContext(Card);
  const words = useKnownWords();
  const known = card?.knownGood.filter((k) => k.check === check) ?? [];
  if (known.length === 0) return null;
  return (
    <p role="note" aria-label="This engine, sound" className="mb-2 border-l-4 border-calm px-3 text-sm">
      <strong>This engine, sound:</strong> {known.map(words).join(" · ")}
    </p>
  );
}

/** Where this engine was found weak, and where smoke went in: before eyes and hands look. */
export function WeakPlaces() {
  const card = useContext(Card);
  const { layout } = useJob();
  if (!card || !layout) return null;
  const shown = card.entries.find((way) => way.picture);
  return (
    <section aria-label="This engine here" className="border-l-4 border-calm bg-calm-soft px-4 py-3">
      <h3 className="font-bold">
        This engine, from {card.jobs} {card.jobs === 1 ? "proved job" : "proved jobs"} here
      </h3>
      <p>
        Found:{" "}
        {card.weak
          .map(
            ({ joint, times, minutes }) =>
              `${jointName(layout, joint)} ${times}×${minutes ? `, about ${formatNumber(minutes, 0)} min` : ""}`,
          )
          .join(" · ")}
      </p>
      {card.entries.length > 0 && (
        <p className="text-muted">
          The way in: {card.entries.map(({ joint, times }) => `${jointName(layout, joint)} ${times}×`).join(" · ")}
        </p>
      )}
      {shown?.picture && (
        <Thumbnail {...shown.picture} says={`The way in at the ${inSentence(jointName(layout, shown.joint))}`} />
      )}
    </section>
  );
}

/** Torques and parts that proved repairs of this engine took. */
export function RepairsBefore() {
  const card = useContext(Card);
  const { format } = usePreferences();
  if (!card || card.torques.length + card.parts.length === 0) return null;
  return (
    <section aria-label="Repairs of this engine here" className="border-l-4 border-calm px-4 py-2">
      {card.parts.length > 0 && (
        <p>
          <strong>Parts before:</strong> {card.parts.map((p) => `${p.name} ${p.times}×`).join(" · ")}
        </p>
      )}
      {card.torques.length > 0 && (
        <p>
          <strong>Torques as recorded:</strong>{" "}
          {card.torques.map((t) => `${t.where} ${format(t.torque)} (job ${t.job})`).join(" · ")}. The maker's figure goes first.
        </p>
      )}
    </section>
  );
}
