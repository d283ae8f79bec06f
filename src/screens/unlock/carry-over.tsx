"use client";

import { useEffect, useRef, useState } from "react";
import { carriedFor, type Entry, keptAnew, type Offer, textsIn } from "@/core/journal";
import { Button, LinkButton } from "@/ui/button";
import { Tick } from "@/ui/choice";
import { DividedList } from "@/ui/divided-list";
import { ErrorNote } from "@/ui/field";
import { shortTime } from "../job/short-time";
import { takeOverKept } from "../session/device-store";
import { sendNow } from "../session/outbox";
import { usePerson } from "../session/person";
import { load } from "../session/storage";

/** Only this very machine's plain page: the same name, without encryption. */
const isOurPlainPage = (origin: string) => {
  if (!URL.canParse(origin)) return false;
  const { protocol, hostname } = new URL(origin);
  return protocol === "http:" && hostname === window.location.hostname;
};

/** Offer of the plain page, and where to answer: it offers it until it hears that it was taken. */
interface Offered {
  readonly offer: Offer;
  readonly source: Window;
  readonly origin: string;
}

/** Listens for what the plain page holds of this device: to the browser that is another place, with a store of its own. */
function useOffer(): Offered | undefined {
  const [offered, setOffered] = useState<Offered>();
  useEffect(() => {
    const hear = ({ data, origin, source }: MessageEvent<{ pelota?: string; load?: Offer }>) => {
      if (data?.pelota !== "carry-over" || typeof data.load !== "object" || !data.load || !isOurPlainPage(origin)) return;
      const there = source as Window;
      there.postMessage({ pelota: "heard" }, origin);
      setOffered((before) => before ?? { offer: data.load as Offer, source: there, origin });
    };
    window.addEventListener("message", hear);
    return () => window.removeEventListener("message", hear);
  }, []);
  return offered;
}

const kindOf = ({ kind }: Entry) => `${kind.charAt(0).toUpperCase()}${kind.slice(1).replaceAll("-", " ")}`;

/** The words that an entry carries, as much of them as tells what it is. */
const wordsOf = (body: unknown) =>
  [...textsIn(body)]
    .filter((text) => /\s|^[A-Z]/.test(text))
    .join(" · ")
    .slice(0, 160);

/**
 * The page that the plain one opens to hand over what it holds. Anybody on the network can stand for that page: nothing is taken
 * over before whoever made it has signed in here and looked through it, and no setting comes this way at all.
 */
export function CarryOver() {
  const { person, ask } = usePerson();
  const offered = useOffer();
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [over, setOver] = useState<number>();
  const [wrong, setWrong] = useState<string>();
  const busy = useRef(false);
  const carried = offered && person ? carriedFor(offered.offer, person) : undefined;
  const chosen = (carried?.mine ?? []).filter((e) => !left.has(e.id));
  const drafts = [...(carried?.drafts ?? [])].filter(([key]) => !left.has(key));
  const take = async () => {
    if (!offered || busy.current) return;
    busy.current = true;
    try {
      await takeOverKept(keptAnew(chosen));
      for (const [key, text] of drafts) if (load(key) === undefined) localStorage.setItem(key, text);
      const message = { pelota: "carried-over", ids: chosen.map((e) => e.id), keys: drafts.map(([key]) => key) };
      offered.source.postMessage(message, offered.origin);
      setOver(chosen.length);
      void sendNow();
    } catch (e) {
      setWrong(`This page could not keep it: ${(e as Error).message}. It is still in the other one`);
    } finally {
      busy.current = false;
    }
  };
  return (
    <main className="mx-auto flex min-h-dvh max-w-xl flex-col justify-center gap-4 p-6">
      <h1 className="text-2xl font-bold">{over === undefined ? "What waits on the plain page" : "Taken over"}</h1>
      {over !== undefined ? (
        <>
          <p>
            {over === 0
              ? "What was typed is here"
              : over === 1
                ? "1 entry that waited is here, with what was typed"
                : `${over} entries that waited are here, with what was typed`}
            . The other page can be closed; from now on this device opens this one.
          </p>
          <div>
            <LinkButton href="/" look="primary">
              Go on
            </LinkButton>
          </div>
        </>
      ) : !person ? (
        <>
          <p>
            Sign in first: you see what waits there under your name, and take over what is yours. Leave the other page open until
            this one says that it has everything.
          </p>
          <div>
            <Button look="primary" onClick={ask}>
              Sign in
            </Button>
          </div>
        </>
      ) : !carried ? (
        <p className="text-muted">Waiting for the other page: leave it open.</p>
      ) : (
        <>
          <p>
            Look through it, {person}: what you take over goes into the journals under your name. Leave out what you did not make.
          </p>
          <DividedList>
            {carried.mine.map((entry) => (
              <li key={entry.id} className="py-1">
                <Tick
                  label={`${kindOf(entry)}, ${shortTime(entry.at)}: ${wordsOf(entry.body) || "no words"}`}
                  checked={!left.has(entry.id)}
                  onChange={(on) => setLeft(new Set(on ? [...left].filter((id) => id !== entry.id) : [...left, entry.id]))}
                />
              </li>
            ))}
            {[...carried.drafts].map(([key, text]) => (
              <li key={key} className="py-1">
                <Tick
                  label={`Half filled: ${wordsOf(JSON.parse(text)) || key.replace("pelota.draft.", "")}`}
                  checked={!left.has(key)}
                  onChange={(on) => setLeft(new Set(on ? [...left].filter((k) => k !== key) : [...left, key]))}
                />
              </li>
            ))}
          </DividedList>
          {carried.mine.length + carried.drafts.size === 0 && <p>Nothing of yours waits there.</p>}
          {[...carried.others].map(([name, n]) => (
            <p key={name} className="text-amber">
              {n === 1 ? "1 entry" : `${n} entries`} of {name} {n === 1 ? "waits" : "wait"} there, too: {name} signs in here and
              takes {n === 1 ? "it" : "them"} over.
            </p>
          ))}
          <div className="flex flex-wrap gap-2">
            <Button look="primary" disabled={chosen.length + drafts.length === 0} onClick={() => void take()}>
              Take over {chosen.length + drafts.length}
            </Button>
            <Button onClick={ask}>Someone else signs in</Button>
          </div>
        </>
      )}
      {wrong && <ErrorNote>{wrong}</ErrorNote>}
    </main>
  );
}
