"use client";

import type { ReactNode } from "react";
import { createPortal } from "react-dom";
import { Clock } from "@/ui/clock";
import { useWide } from "@/ui/use-wide";
import { useOverlay } from "../overlay";

/**
 * How an instrument's work stands and what is done with it: always in sight. Beside the instrument where there is room for
 * it; on a phone the verdict follows the readings, and what is done stays at the lower edge, with the clock that ends first.
 */
export function Conclusion({ verdict, actions }: { verdict?: ReactNode; actions: ReactNode }) {
  const { side, overlay } = useOverlay();
  const wide = useWide();
  const first = overlay.clocks?.toSorted((a, b) => a.end - b.end)[0];
  if (wide)
    return (
      side &&
      createPortal(
        <div className="flex flex-col gap-3">
          <div className="flex flex-wrap gap-2">{actions}</div>
          {verdict}
        </div>,
        side,
      )
    );
  return (
    <>
      {verdict}
      <div className="sticky bottom-0 z-10 -mx-4 flex flex-wrap items-center gap-2 border-t border-line bg-bg px-4 py-2">
        {actions}
        {first && (
          <p className="ml-auto flex items-center gap-2 text-sm">
            <span className="max-w-32 leading-tight text-muted">{first.name}</span>
            <Clock end={first.end} done={first.done} />
          </p>
        )}
      </div>
    </>
  );
}
