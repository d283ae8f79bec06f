import type { ZoneId } from "@/core/vehicle";

/** Known facts of a zone. */
export type ZoneState = "untested" | "reached" | "tight" | "leaking";

/** A zone as it stands now: what is known, whether the fill being set up reaches it, and its joints that leak. */
export interface ZoneNow {
  readonly zone: ZoneId;
  readonly name: string;
  readonly known: ZoneState;
  readonly planned: boolean;
  readonly leaks: readonly string[];
}

export const ZONE_STATE_WORDS: Record<ZoneState, string> = {
  untested: "untested",
  reached: "smoke reached it",
  tight: "proved tight",
  leaking: "leaking",
};
export const FILLS: Record<ZoneState, string> = {
  untested: "url(#hatch)",
  reached: "url(#mist)",
  tight: "url(#tight)",
  leaking: "url(#mist)",
};
export const EDGES: Record<ZoneState, string> = {
  untested: "var(--edge)",
  reached: "var(--ink)",
  tight: "var(--calm)",
  leaking: "var(--ember)",
};

/** The patterns that fill zones; drawn once on the page, wherever zones are. */
export function Patterns() {
  return (
    <svg width="0" height="0" aria-hidden className="absolute">
      <defs>
        <pattern id="hatch" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="9" height="9" fill="var(--panel)" />
          <line x1="0" y1="0" x2="0" y2="9" stroke="var(--line)" strokeWidth="4" />
        </pattern>
        <pattern id="mist" width="12" height="12" patternUnits="userSpaceOnUse">
          <rect width="12" height="12" fill="var(--raised)" />
          <circle cx="3" cy="3" r="2.1" fill="var(--muted)" />
          <circle cx="9" cy="9" r="1.6" fill="var(--muted)" />
        </pattern>
        <pattern id="tight" width="6" height="6" patternUnits="userSpaceOnUse">
          <rect width="6" height="6" fill="var(--calm)" />
        </pattern>
      </defs>
    </svg>
  );
}
