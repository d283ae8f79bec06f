"use client";

import { ArrowRightToLine } from "lucide-react";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { CHECKS } from "@/core/checks";
import type { Tool } from "@/core/reckoner";
import { Button } from "@/ui/button";
import { Dialog } from "@/ui/dialog";
import { ErrorNote, SelectField } from "@/ui/field";
import { load, save } from "../session/storage";

/** A job that a reading can be carried into. */
export interface OpenJob {
  readonly id: string;
  readonly name: string;
}

/** Lays what was typed here into the same check of a job, as a draft: it is looked over and recorded there. */
export function TakeIntoJob({
  into,
  record,
  jobs,
}: {
  into: NonNullable<Tool["into"]>;
  record: object;
  jobs: readonly OpenJob[];
}) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [job, setJob] = useState("");
  const [error, setError] = useState<string>();
  const { name } = CHECKS[into.check];
  const take = () => {
    const chosen = jobs.find((j) => j.id === job);
    if (!chosen) return setError("Choose the job it goes into");
    const key = `pelota.draft.${chosen.id}.${into.check}`;
    // What somebody has begun there is not written over.
    if (load(key) !== undefined)
      return setError(`There is a ${name.toLowerCase()} begun in ${chosen.name}: record or discard it there first`);
    save(key, { ...into.draft(record), startedAt: new Date().toISOString() });
    save(`pelota.draft.${chosen.id}.instrument`, into.check);
    router.push(`/jobs/${chosen.id}`);
  };
  return (
    <>
      <Button onClick={() => setOpen(true)}>
        <ArrowRightToLine aria-hidden size={18} /> Use in a job
      </Button>
      <Dialog
        open={open}
        onOpenChange={setOpen}
        title={`Into a ${name.toLowerCase()}`}
        description="It stands there as a draft, at the station Check: nothing is recorded by this."
      >
        <div className="flex flex-col gap-4">
          <SelectField
            label="Job"
            options={[["", "Choose a job"], ...jobs.map((j) => [j.id, j.name] as const)]}
            value={job}
            onChange={(e) => setJob(e.target.value)}
          />
          {error && <ErrorNote>{error}</ErrorNote>}
          <div>
            <Button look="primary" onClick={take}>
              Use it there
            </Button>
          </div>
        </div>
      </Dialog>
    </>
  );
}
