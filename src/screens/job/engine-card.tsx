"use client";

import { createContext, type ReactNode, useContext, useEffect, useState } from "react";
import { type CheckId, jointName } from "@/core/checks";
import { ENGINE_NOTES, type EngineCard, type EngineNote, engineNoteForm, type KnownGood } from "@/core/journal";
import { inSentence } from "@/core/sentence";
import { formatNumber } from "@/core/units";
import { engineOf } from "@/core/vehicle";
import { Button } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { Form } from "@/ui/form";
import { Note } from "@/ui/note";
import { FormFields } from "../form/form-field";
import { getJson } from "../session/api";
import { lately } from "../session/lately";
import { usePreferences } from "../session/preferences";
import { Pictures, picturesIn, Thumbnail } from "./pictures";
import { useEntryForm } from "./use-entry-form";
import { useJob } from "./use-job";

const Card = createContext<EngineCard | undefined>(undefined);

const cardsLately = lately<EngineCard>("pelota.engineCards");

/** Experience of the shop of this engine, fetched once the vehicle is described; without the server as it was seen last. */
export function EngineCardProvider({ children }: { children: ReactNode }) {
  const { id, state } = useJob();
  const [card, setCard] = useState<EngineCard>();
  const engine = state.vehicle && !state.practice ? engineOf(state.vehicle) : "";
  // What is written on it here stands on it at once.
  const notes = state.engineNotes.length;
  // biome-ignore lint/correctness/useExhaustiveDependencies: a note more is a card to be fetched anew
  useEffect(() => {
    let left = false;
    if (!engine) setCard(undefined);
    else
      getJson<EngineCard | null>(`jobs/${id}/engine`).then(
        (known) => {
          cardsLately.keep(id, known ?? undefined);
          if (!left) setCard(known ?? undefined);
        },
        () => left || setCard(cardsLately.known(id)),
      );
    return () => {
      left = true;
    };
  }, [id, engine, notes]);
  return <Card.Provider value={card}>{children}</Card.Provider>;
}

/** Notes to read where it is repaired. */
const IN_FIX: readonly EngineNote[] = ["torque", "kit", "tools"];

const jobs = (values: KnownGood["values"]) => values.map((v) => v.job).join(", ");

/** A reading on sound engines of this kind: a band where they agree, else each by itself. */
function useKnownWords(): (known: KnownGood) => string {
  const { number } = usePreferences();
  return ({ name, unit, kind, band, values }) => {
    const shown = (value: number) => number(value, Math.abs(value) >= 100 ? 0 : Math.abs(value) >= 10 ? 1 : 2);
    const of = `${unit}${kind ? ` ${kind}` : ""}`;
    if (band) {
      const ends = [...new Set(band.map(shown))];
      const how = [...new Set(values.flatMap((v) => v.with ?? []))];
      return `${name} ${ends.join(" to ")} ${of} (jobs ${jobs(values)}${how.length > 0 ? `; ${how.join("; ")}` : ""})`;
    }
    const each = values.map((v) => `${shown(v.value)} (job ${v.job}${v.with ? `: ${v.with}` : ""})`).join(", ");
    return `${name} ${each} ${of}${values.length > 2 ? ": they do not agree" : ""}`;
  };
}

/** Readings of this check on sound engines of this kind. */
export function KnownGoodHere({ check }: { check: CheckId }) {
  const card = useContext(Card);
  const words = useKnownWords();
  const known = card?.knownGood.filter((k) => k.check === check) ?? [];
  const notes = card?.notes.filter((n) => n.about === "reading") ?? [];
  if (known.length + notes.length === 0) return null;
  return (
    <p role="note" aria-label="This engine, sound" className="mb-2 border-l-4 border-calm px-3 text-sm">
      <strong>This engine, sound:</strong>{" "}
      {[...known.map(words), ...notes.map(({ text, by, job }) => `${text} (${by}, job ${job})`)].join(" · ")}
    </p>
  );
}

/** Where this engine was found weak, where smoke went in, and what was written down for whoever comes next: before eyes and hands look. */
export function WeakPlaces() {
  const card = useContext(Card);
  const { layout, state } = useJob();
  if (!layout || !state.vehicle || state.practice || engineOf(state.vehicle) === "") return null;
  const shown = card?.entries.find((way) => way.picture);
  const proved = card?.jobs ?? 0;
  return (
    <Note aria-label="This engine here" tone="calm" as="section" className="flex flex-col gap-2">
      <h3 className="font-bold">
        This engine
        {proved > 0 ? `, from ${proved} ${proved === 1 ? "proved job" : "proved jobs"} here` : ": no proved job here yet"}
      </h3>
      {card && card.weak.length > 0 && (
        <p>
          Found:{" "}
          {card.weak
            .map(
              ({ joint, times, minutes }) =>
                `${jointName(layout, joint)} ${times}×${minutes ? `, about ${formatNumber(minutes, 0)} min` : ""}`,
            )
            .join(" · ")}
        </p>
      )}
      {card && card.entries.length > 0 && (
        <p className="text-muted">
          The way in: {card.entries.map(({ joint, times }) => `${jointName(layout, joint)} ${times}×`).join(" · ")}
        </p>
      )}
      {shown?.picture && (
        <Thumbnail {...shown.picture} says={`The way in at the ${inSentence(jointName(layout, shown.joint))}`} />
      )}
      <Notes about={["way-in", "tools", "other"]} />
      <EngineNoteForm />
    </Note>
  );
}

/** Note that somebody wrote on the card. */
function Notes({ about }: { about: readonly EngineNote[] }) {
  const notes = useContext(Card)?.notes.filter((n) => about.includes(n.about)) ?? [];
  if (notes.length === 0) return null;
  return (
    <ul className="flex flex-col gap-2">
      {notes.map(({ text, by, job, at, about: of, pictures }) => (
        <li key={`${job} ${at} ${text}`} className="flex flex-wrap items-start gap-x-4 gap-y-2">
          <p className="min-w-0 basis-80 grow">
            <strong>{ENGINE_NOTES[of]}:</strong> {text}{" "}
            <span className="text-muted">
              {by}, job {job}
            </span>
          </p>
          {pictures.map((picture) => (
            <Thumbnail key={picture.sha256} {...picture} says={`${ENGINE_NOTES[of]}, job ${job}`} />
          ))}
        </li>
      ))}
    </ul>
  );
}

/** A line for the card, with a picture where one says more. */
function EngineNoteForm() {
  const form = useEntryForm(engineNoteForm, "engine-note", undefined);
  const pictures = picturesIn(form.value("pictures"));
  return (
    <details>
      <summary className="flex min-h-11 cursor-pointer items-center underline underline-offset-4">
        Add a note to this engine&rsquo;s card
      </summary>
      <Form
        className="flex max-w-2xl flex-col gap-3 pt-1"
        onSubmit={() => void form.submit((body) => [{ kind: "engine-note", body }])}
      >
        <FormFields of={form} names={["about", "text"]} />
        <Pictures value={pictures} onChange={(next) => form.set({ pictures: next })} />
        {form.error && <ErrorNote>{form.error}</ErrorNote>}
        <div>
          <Button type="submit" disabled={form.busy}>
            Add to the card
          </Button>
        </div>
      </Form>
    </details>
  );
}

/** Torques, parts and what else proved repairs of this engine took. */
export function RepairsBefore() {
  const card = useContext(Card);
  const { format } = usePreferences();
  const noted = card?.notes.some((n) => IN_FIX.includes(n.about)) ?? false;
  if (!card || (!noted && card.torques.length + card.parts.length + card.kit.length === 0)) return null;
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
      {card.kit.length > 0 && (
        <p>
          <strong>Kit before:</strong> {card.kit.map((k) => `${k.name} ${k.times}×`).join(" · ")}
        </p>
      )}
      <Notes about={IN_FIX} />
    </section>
  );
}
