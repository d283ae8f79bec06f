"use client";

import { sighted } from "@/core/checks/smoke";
import { type Joint, markable } from "@/core/vehicle";
import { Button } from "@/ui/button";
import { Dialog } from "@/ui/dialog";
import { useJob } from "../../use-job";
import type { SmokeHandle } from "./use-smoke-run";

/** Where smoke is seen: what the fill puts to the test first, then whatever else it gets to. */
export function MarkSmoke({
  run: { fill, circuit, update },
  open,
  onOpenChange,
}: {
  run: SmokeHandle;
  open: boolean;
  onOpenChange: (open: boolean) => void;
}) {
  const { layout } = useJob();
  if (!layout) return null;
  const { tested, rest } = markable(layout, fill, circuit);
  const at = (joint: Joint) => (
    <Button
      key={joint.id}
      onClick={() => {
        update((d) => sighted(d, joint.id, Date.now()));
        onOpenChange(false);
      }}
    >
      {joint.name}
    </Button>
  );
  return (
    <Dialog
      open={open}
      onOpenChange={onOpenChange}
      title="Where do you see smoke?"
      description="A zone on the air map can be tapped as well."
    >
      <div className="flex flex-wrap gap-2">{tested.map(at)}</div>
      {rest.length > 0 && (
        <section aria-label="Elsewhere on this fill">
          <h3 className="mt-4 mb-2 text-muted">
            Elsewhere on this fill: plugs, open ends, and what passes some by design or inside
          </h3>
          <div className="flex flex-wrap gap-2">{rest.map(at)}</div>
        </section>
      )}
    </Dialog>
  );
}
