"use client";

import { TriangleAlert } from "lucide-react";
import { CAUTION_TEXTS, type CautionId } from "@/core/checks";
import { Note } from "@/ui/note";
import { useTerms } from "../session/preferences";
import { AppendButton } from "./append-button";
import { useJob } from "./use-job";

/** Cautions that apply, before the step; each is acknowledged once per job and kept in the record. None blocks. */
export function Cautions({ ids }: { ids: readonly CautionId[] }) {
  const { state } = useJob();
  const terms = useTerms();
  const open = ids.filter((id) => !state.cautions.includes(id));
  if (open.length === 0) return null;
  return (
    <Note
      aria-label="Cautions"
      tone="amber"
      as="section"
      tight
      className="flex flex-wrap items-center justify-between gap-x-4 gap-y-2"
    >
      <ul className="flex min-w-0 flex-1 basis-80 flex-col gap-1">
        {open.map((id) => (
          <li key={id} className="flex items-start gap-2">
            <TriangleAlert aria-hidden size={18} className="mt-1 shrink-0 text-amber" />
            {terms(CAUTION_TEXTS[id])}
          </li>
        ))}
      </ul>
      <div>
        <AppendButton entries={open.map((id) => ({ kind: "caution", body: { caution: id } }))}>Understood</AppendButton>
      </div>
    </Note>
  );
}
