"use client";

import { useCallback } from "react";
import { v4 as uuid } from "uuid";
import { type CheckContext, type CheckId, judgeCheck } from "@/core/checks";
import { type At, inputsHash, RULES_VERSION } from "@/core/journal";
import type { NewEntry } from "../../session/device";
import { useJob } from "../use-job";

/** Records a finished check together with what the technician was shown; resolves to what was wrong, if anything. */
export function useRecordCheck() {
  const { state, layout, shop, append } = useJob();
  return useCallback(
    async (check: CheckId, record: object, at: At, ...more: NewEntry[]): Promise<string | undefined> => {
      if (!state.vehicle || !layout) return "Describe the vehicle first: a check is judged by its facts";
      const context: CheckContext = { vehicle: state.vehicle, layout, limits: shop.limits, house: shop.house };
      const verdict = judgeCheck(check, record, context);
      const body = { check, record };
      const id = uuid();
      return append(
        ...more,
        { id, kind: "check", body, at },
        {
          kind: "judged",
          body: {
            entry: id,
            inputsHash: inputsHash(body, context),
            rulesVersion: RULES_VERSION,
            outcome: verdict.outcome,
            headline: verdict.headline,
          },
        },
      );
    },
    [state.vehicle, layout, shop, append],
  );
}
