"use client";

import { BURST_POINTS, type JointPlace, type PlacedName } from "@/core/vehicle";

/** A leak: a burst at its joint. */
export function Burst({ place }: { place: JointPlace }) {
  return (
    <polygon
      className="pointer-events-none"
      points={BURST_POINTS}
      fill="var(--ember)"
      stroke="var(--bg)"
      strokeWidth={1.5}
      transform={`translate(${place.x} ${place.y})`}
    />
  );
}

/** Where the instrument in hand is at: a bracketed place. */
export function InHand({ place }: { place: JointPlace }) {
  return (
    <path
      className="pointer-events-none"
      d="M-18 -8 V-18 H-8 M8 -18 H18 V-8 M18 8 V18 H8 M-8 18 H-18 V8"
      fill="none"
      stroke="var(--live)"
      strokeWidth={4}
      transform={`translate(${place.x} ${place.y})`}
    />
  );
}

/** A name where there is room for it, kept readable over pipes by a rim of background. */
export function NameOnMap({
  name,
  colour,
  rim = "var(--bg)",
  bold = false,
}: {
  name: PlacedName;
  colour: string;
  rim?: string;
  bold?: boolean;
}) {
  const [from, to] = name.leader ?? [];
  return (
    <g className="pointer-events-none">
      {from && to && <line x1={from.x} y1={from.y} x2={to.x} y2={to.y} stroke={colour} strokeWidth={1} />}
      <text
        x={name.x}
        y={name.y}
        textAnchor="middle"
        fontSize={name.size}
        fontWeight={bold ? 700 : 400}
        fill={colour}
        stroke={rim}
        strokeWidth={4}
        paintOrder="stroke"
      >
        {name.text}
      </text>
    </g>
  );
}

interface MarkProps {
  readonly place: JointPlace;
  readonly blocked: boolean;
  readonly heldOpen: boolean;
  readonly entry: boolean;
  readonly displaced: boolean;
}

/** Mark of the device in a joint: meter, compressor, throttle, valve; and what is done to it: blocked, held open, smoke in. */
export function JointMark({ place, blocked, heldOpen, entry, displaced }: MarkProps) {
  const { joint, x, y } = place;
  const off = blocked || (displaced && !entry && !heldOpen);
  const upright = place.passage?.[0]?.x === place.passage?.[1]?.x && place.passage !== undefined;
  return (
    <g className="pointer-events-none" transform={`translate(${x} ${y})`}>
      <JointSymbol kind={joint.kind} heldOpen={heldOpen} />
      {off && (
        <rect
          x={-6}
          y={-20}
          width={12}
          height={40}
          fill="var(--amber)"
          stroke="var(--bg)"
          transform={upright ? "rotate(90)" : undefined}
        />
      )}
      {entry && (
        <path
          d="M-4 -48 h8 v22 h9 L0 -10 L-13 -26 h9 Z"
          fill="var(--live)"
          stroke="var(--bg)"
          transform={place.free === "below" ? "rotate(180)" : undefined}
        />
      )}
    </g>
  );
}

function JointSymbol({ kind, heldOpen }: { kind: JointPlace["joint"]["kind"]; heldOpen: boolean }) {
  const ink = "var(--ink)";
  switch (kind) {
    case "meter":
      return <line y1={-26} y2={26} stroke={ink} strokeWidth={3} />;
    case "compressor":
      return (
        <>
          <circle r={20} fill="var(--bg)" stroke={ink} strokeWidth={2} />
          <path d="M-9 -6 Q0 6 9 -6 M-9 6 Q0 -6 9 6" fill="none" stroke={ink} strokeWidth={2} />
        </>
      );
    case "throttle":
      return <line y1={-24} y2={24} stroke={ink} strokeWidth={3} transform={heldOpen ? "rotate(78)" : undefined} />;
    case "valve":
      return (
        <>
          <circle r={12} fill="var(--bg)" />
          <path d="M-10 -8 L10 8 V-8 L-10 8 Z" fill="var(--bg)" stroke={ink} strokeWidth={2} />
        </>
      );
    case "seal":
      return <circle r={3} fill="var(--muted)" stroke="var(--bg)" />;
    default:
      return null;
  }
}
