"use client";

import { Maximize2 } from "lucide-react";
import { BURST_POINTS, EVAP_ZONES, type Joint, type Layout, type ZoneId } from "@/core/vehicle";
import { Button } from "@/ui/button";
import { centreIn } from "@/ui/centre-in";
import { type Overlay, useOverlay } from "../overlay";
import { EDGES, FILLS, ZONE_STATE_WORDS, type ZoneNow } from "./zone-state";

/** The joint that the instrument in hand is about: where it is at, or where its smoke goes in. */
const jointInHand = (layout: Layout, { at, setup }: Overlay): Joint | undefined =>
  layout.joints.find((j) => j.id === (at ?? setup?.entry));

/**
 * The map made small while an instrument has the room: the zones of the circuit in question, in the order of the flow, with
 * what is known of each, and what stands in their joints in words.
 */
export function MapStrip({
  layout,
  zones,
  vapour,
  onZone,
  onWhole,
}: {
  layout: Layout;
  zones: readonly ZoneNow[];
  /** Whether the instrument is one of the vapour system's */
  vapour: boolean;
  onZone: (zone: ZoneId) => void;
  onWhole: () => void;
}) {
  const { overlay } = useOverlay();
  const inHand = jointInHand(layout, overlay);
  const ends = inHand ? [inHand.from, inHand.to] : [];
  const evap = vapour || ends.some((zone) => EVAP_ZONES.some((z) => z === zone));
  const shown = zones.filter(({ zone }) => EVAP_ZONES.includes(zone) === evap);
  const target = shown.find(({ zone }) => ends.includes(zone))?.zone ?? shown.find((z) => z.leaks.length > 0)?.zone;
  const name = (id: string) => layout.joints.find((j) => j.id === id)?.name ?? id;
  const { setup } = overlay;
  const words = [
    overlay.at && overlay.at !== setup?.entry && ["At", name(overlay.at), "text-live"],
    setup?.entry && ["In at", name(setup.entry), "text-live"],
    ...(setup?.blocked ?? []).map((id) => ["Blocked", name(id), "text-amber"] as const),
    ...(setup?.heldOpen ?? []).map((id) => ["Held open", name(id), "text-live"] as const),
  ].filter((w): w is [string, string, string] => Boolean(w));
  return (
    <div className="flex items-center gap-2 px-3 py-1.5 max-sm:px-1">
      <div className="min-w-0 grow">
        <ul className="flex gap-1 overflow-x-auto">
          {shown.map(({ zone, name: called, known, planned, leaks }) => (
            // It begins where the work is.
            <li key={zone} ref={zone === target ? centreIn : undefined} className="shrink-0">
              <button
                type="button"
                aria-label={`${called}: ${ZONE_STATE_WORDS[known]}${planned ? ", this fill reaches it" : ""}`}
                onClick={() => onZone(zone)}
                className={`flex min-h-11 cursor-pointer items-center gap-2 rounded-md px-2 text-sm hover:bg-raised ${zone === target ? "bg-raised" : ""}`}
              >
                <svg width="26" height="16" aria-hidden className="shrink-0">
                  <rect
                    x="1.5"
                    y="1.5"
                    width="23"
                    height="13"
                    rx="2"
                    fill={planned && known === "untested" ? "url(#mist)" : FILLS[known]}
                    stroke={planned ? "var(--live)" : EDGES[known]}
                    strokeWidth={planned ? 2.5 : 1.5}
                  />
                  {leaks.length > 0 && (
                    <polygon points={BURST_POINTS} fill="var(--ember)" transform="translate(13 8) scale(0.6)" />
                  )}
                </svg>
                <span>
                  {called}
                  {leaks.length > 0 && <span className="block text-ember">{leaks.map(name).join(", ")}</span>}
                </span>
              </button>
            </li>
          ))}
        </ul>
        {words.length > 0 && (
          <p className="truncate px-2 text-sm text-muted">
            {words.map(([what, where, ink]) => (
              <span key={`${what} ${where}`} className="mr-4">
                {what} <span className={ink}>{where}</span>
              </span>
            ))}
          </p>
        )}
      </div>
      <Button look="bare" onClick={onWhole} aria-label="Whole map">
        <Maximize2 aria-hidden size={18} />
        <span className="whitespace-nowrap max-sm:hidden">Whole map</span>
      </Button>
    </div>
  );
}
