"use client";

import type { ZoneId } from "@/core/vehicle";
import { Button } from "@/ui/button";
import { Dialog } from "@/ui/dialog";
import { DividedList } from "@/ui/divided-list";
import { useOverlay } from "../overlay";
import { useBay } from "../practice/use-bay";
import { useJob } from "../use-job";

const WORDS = { tight: "Proved tight", leaking: "Leaking", reached: "Smoke reached it", "not-reached": "Untested" } as const;

/** Known facts of a zone and why, and what can be done at its joints right now. */
export function ZoneSheet({ zone, onClose }: { zone: ZoneId | undefined; onClose: () => void }) {
  const { layout, state, append } = useJob();
  const bay = useBay();
  const { overlay } = useOverlay();
  const place = layout?.zones.find((z) => z.id === zone);
  const known = state.zones.find((z) => z.zone === zone);
  const joints = layout?.joints.filter((j) => j.from === zone || j.to === zone) ?? [];
  return (
    <Dialog open={zone !== undefined} onOpenChange={(open) => !open && onClose()} title={place?.name ?? ""}>
      <p className="mb-4">
        <strong className={known?.state === "leaking" ? "text-ember" : known?.state === "tight" ? "text-calm" : ""}>
          {known ? WORDS[known.state] : "Untested"}
        </strong>
        {known ? `: ${known.why}.` : ": no check has shown anything here yet."}
      </p>
      <DividedList open>
        {joints.map((joint) => {
          const suspect = state.suspects.find((s) => s.cause.joint === joint.id);
          return (
            <li key={joint.id} className="flex flex-wrap items-center gap-2 py-2">
              <span className="mr-auto">
                {joint.name}
                {suspect && suspect.odds >= 0.01 && (
                  <span className="ml-2 text-muted">{Math.round(suspect.odds * 100)} % suspect</span>
                )}
              </span>
              {bay && !bay.over && joint.kind !== "engine" && (
                <Button
                  onClick={() => {
                    void append({ kind: "bay", body: { act: "tighten", joint: joint.id } });
                    onClose();
                  }}
                >
                  Tighten or reseat it
                </Button>
              )}
              {overlay.actions?.(joint).map((action) => (
                <Button
                  key={action.label}
                  onClick={() => {
                    action.run();
                    onClose();
                  }}
                >
                  {action.label}
                </Button>
              ))}
            </li>
          );
        })}
      </DividedList>
    </Dialog>
  );
}
