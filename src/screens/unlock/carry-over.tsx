"use client";

import { useEffect, useState } from "react";
import { entrySchema, type Kept } from "@/core/journal";
import { LinkButton } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { takeOverKept } from "../session/device-store";
import { load, save } from "../session/storage";

/** What the plain page still holds of this device: to the browser this page is another place, with a store of its own. */
interface Load {
  readonly kept: readonly Kept[];
  readonly count?: number;
  readonly typed: Readonly<Record<string, string>>;
}

/** Only this very machine's plain page: the same name, without encryption. */
const isOurPlainPage = (origin: string) => {
  if (!URL.canParse(origin)) return false;
  const { protocol, hostname } = new URL(origin);
  return protocol === "http:" && hostname === window.location.hostname;
};

const isKept = (kept: Kept) => typeof kept?.id === "string" && kept.id === kept.entry?.id && entrySchema.isValidSync(kept.entry);

/** Takes over what the plain page holds: what waits is kept before anything is acknowledged, and nothing here is written over. */
async function takeOver({ kept, count, typed }: Load): Promise<{ ids: string[]; keys: string[] }> {
  const good = kept.filter(isKept);
  await takeOverKept(good, count ?? 0);
  const keys = Object.keys(typed).filter((key) => key.startsWith("pelota."));
  for (const key of keys) if (load(key) === undefined) save(key, JSON.parse(typed[key] as string));
  return { ids: good.map((k) => k.id), keys };
}

/** The page that the plain one opens to hand over what it holds. */
export function CarryOver() {
  const [over, setOver] = useState<number>();
  const [wrong, setWrong] = useState<string>();
  useEffect(() => {
    let busy = false;
    const hear = async ({ data, origin, source }: MessageEvent<{ pelota?: string; load?: Load }>) => {
      if (busy || data?.pelota !== "carry-over" || !data.load || !isOurPlainPage(origin)) return;
      busy = true;
      try {
        const taken = await takeOver(data.load);
        (source as Window).postMessage({ pelota: "carried-over", ...taken }, origin);
        setOver(taken.ids.length);
      } catch (e) {
        busy = false;
        setWrong(`This page could not keep it: ${(e as Error).message}. It is still in the other one`);
      }
    };
    window.addEventListener("message", hear);
    return () => window.removeEventListener("message", hear);
  }, []);
  return (
    <main className="mx-auto flex min-h-dvh max-w-md flex-col justify-center gap-4 p-6">
      <h1 className="text-2xl font-bold">{over === undefined ? "Taking over what waits…" : "Taken over"}</h1>
      {over === undefined ? (
        <p className="text-muted">Leave the other page open until this one says that it has everything.</p>
      ) : (
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
      )}
      {wrong && <ErrorNote>{wrong}</ErrorNote>}
    </main>
  );
}
