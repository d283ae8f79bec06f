import type { Needle } from "@/core/checks/vacuum";

/** How a needle behaves, in small: it moves as the real one does, and stands still where motion is not wanted. */
export function NeedlePicture({ pattern }: { pattern: Needle | "slow-return" }) {
  return (
    <svg viewBox="0 0 64 44" className="h-11 w-16" aria-hidden>
      <path d="M8 40 A24 24 0 0 1 56 40" fill="none" stroke="currentColor" strokeWidth={2} opacity={0.6} />
      <g className={`needle-${pattern}`} style={{ transformOrigin: "32px 40px" }}>
        <line x1={32} y1={40} x2={32} y2={20} stroke="currentColor" strokeWidth={3} strokeLinecap="round" />
      </g>
    </svg>
  );
}
