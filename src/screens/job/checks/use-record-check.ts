"use client";

import { useCallback } from "react";
import { v4 as uuid } from "uuid";
import { type CheckId, judgeCheck, type Plan } from "@/core/checks";
import { type At, inputsHash, RULES_VERSION } from "@/core/journal";
import type { NewEntry } from "../../session/device";
import { useJob } from "../use-job";

/** Where a check's draft keeps which line it corrects. */
export const CORRECTS = "corrects";
/** The line that is corrected, and when the check was: a correction is no new check. */
export interface Corrects {
  readonly entry: string;
  readonly at: At;
}

interface More {
  /** SHA-256 of pictures kept with the job */
  readonly pictures?: readonly string[];
  readonly corrects?: Corrects;
  /** What setting it up took off the car and nobody has listed yet: nothing is forgotten on it */
  readonly takenOff?: Plan["displaces"];
}

/** A part that comes off, as an entry. */
export const displacedEntry = ({ what, joint }: Plan["displaces"][number]) => ({
  kind: "displaced" as const,
  body: { what, ...(joint ? { joint } : {}) },
});

/** The entries of a finished check: its record, and what the technician was shown. A message when it cannot be judged yet. */
function useCheckEntries() {
  const { context } = useJob();
  return useCallback(
    (
      check: CheckId,
      record: object,
      at: At,
      { pictures = [], corrects, takenOff = [] }: More = {},
    ): readonly NewEntry[] | string => {
      if (!context) return "Describe the vehicle first: a check is judged by its facts";
      const { outcome, headline } = judgeCheck(check, record, context);
      const body = { check, record, ...(pictures.length > 0 ? { pictures } : {}) };
      const id = uuid();
      const shown = {
        entry: corrects?.entry ?? id,
        inputsHash: inputsHash(body, context),
        rulesVersion: RULES_VERSION,
        outcome,
        headline,
      };
      return [
        ...takenOff.map((d) => ({ ...displacedEntry(d), at })),
        { id, kind: "check", body, at: corrects?.at ?? at, ...(corrects ? { corrects: corrects.entry } : {}) },
        { kind: "judged", body: shown },
      ];
    },
    [context],
  );
}

/** Records a finished check; resolves to what was wrong, if anything. */
export function useRecordCheck() {
  const { append } = useJob();
  const entriesOf = useCheckEntries();
  return useCallback(
    async (check: CheckId, record: object, at: At, more: More = {}): Promise<string | undefined> => {
      const entries = entriesOf(check, record, at, more);
      return typeof entries === "string" ? entries : append(...entries);
    },
    [append, entriesOf],
  );
}
