"use client";

import { useCallback } from "react";
import { v4 as uuid } from "uuid";
import { type CheckId, judgeCheck } from "@/core/checks";
import { type At, inputsHash, RULES_VERSION } from "@/core/journal";
import type { NewEntry } from "../../session/device";
import { useJob } from "../use-job";

/** The entries of a finished check: its record, and what the technician was shown. A message when it cannot be judged yet. */
export function useCheckEntries() {
  const { context } = useJob();
  return useCallback(
    (check: CheckId, record: object, at: At): readonly NewEntry[] | string => {
      if (!context) return "Describe the vehicle first: a check is judged by its facts";
      const { outcome, headline } = judgeCheck(check, record, context);
      const body = { check, record };
      const id = uuid();
      const shown = { entry: id, inputsHash: inputsHash(body, context), rulesVersion: RULES_VERSION, outcome, headline };
      return [
        { id, kind: "check", body, at },
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
    async (check: CheckId, record: object, at: At): Promise<string | undefined> => {
      const entries = entriesOf(check, record, at);
      return typeof entries === "string" ? entries : append(...entries);
    },
    [append, entriesOf],
  );
}
