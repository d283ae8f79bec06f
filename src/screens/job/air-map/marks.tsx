"use client";

import type { Quantity } from "@/core/units";
import { BURST_POINTS, type JointPlace } from "@/core/vehicle";
import { usePreferences } from "../../session/preferences";

/** A leak: a burst at its joint, with the joint's name and its size. */
export function Burst({ place, size }: { place: JointPlace; size?: Quantity | undefined }) {
  const { format } = usePreferences();
  return (
    <g className="pointer-events-none">
      <polygon
        points={BURST_POINTS}
        fill="var(--ember)"
        stroke="var(--bg)"
        strokeWidth={1.5}
        transform={`translate(${place.x} ${place.y})`}
      />
      <MapText
        text={[place.joint.name, size ? `≈ ${format(size, 1)}` : ""].filter(Boolean).join(" ")}
        at={place.label}
        colour="var(--ember)"
        bold
      />
    </g>
  );
}

/** Where the instrument in hand is at: a bracketed place with its name. */
export function InHand({ place, named }: { place: JointPlace; named: boolean }) {
  return (
    <g className="pointer-events-none">
      <path
        d="M-18 -8 V-18 H-8 M8 -18 H18 V-8 M18 8 V18 H8 M-8 18 H-18 V8"
        fill="none"
        stroke="var(--live)"
        strokeWidth={4}
        transform={`translate(${place.x} ${place.y})`}
      />
      {named && <MapText text={place.joint.name} at={place.label} colour="var(--live)" bold />}
    </g>
  );
}

/** Text on the map, kept readable over pipes by a rim of background. */
function MapText({
  text,
  at,
  colour,
  bold = false,
}: {
  text: string;
  at: { readonly x: number; readonly y: number; readonly anchor: "start" | "middle" | "end" };
  colour: string;
  bold?: boolean;
}) {
  return (
    <text
      x={at.x}
      y={at.y}
      textAnchor={at.anchor}
      fontSize={bold ? 14 : 13}
      fontWeight={bold ? 700 : 400}
      fill={colour}
      stroke="var(--bg)"
      strokeWidth={5}
      paintOrder="stroke"
    >
      {text}
    </text>
  );
}

interface MarkProps {
  readonly place: JointPlace;
  readonly blocked: boolean;
  readonly heldOpen: boolean;
  readonly entry: boolean;
  readonly displaced: boolean;
}

/** What stands in a joint: meter, compressor, throttle, valve; and what is done to it: blocked, held open, smoke in. */
export function JointMark({ place, blocked, heldOpen, entry, displaced }: MarkProps) {
  const { joint, x, y } = place;
  const off = blocked || (displaced && !entry && !heldOpen);
  const upright = place.passage?.[0]?.x === place.passage?.[1]?.x && place.passage !== undefined;
  const label = blocked
    ? ([`${joint.name}, blocked`, "var(--amber)"] as const)
    : heldOpen
      ? ([`${joint.name}, held open`, "var(--live)"] as const)
      : off
        ? ([joint.name, "var(--amber)"] as const)
        : NAMED.includes(joint.kind)
          ? ([joint.name, "var(--muted)"] as const)
          : undefined;
  return (
    <g className="pointer-events-none">
      <g transform={`translate(${x} ${y})`}>
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
      {label && <MapText text={label[0]} colour={label[1]} at={place.label} />}
      {entry && (
        <MapText text="Smoke in" colour="var(--live)" at={{ x, y: place.free === "below" ? y + 64 : y - 54, anchor: "middle" }} />
      )}
    </g>
  );
}

/** Kinds of joint whose name always stands on the map. */
const NAMED: readonly JointPlace["joint"]["kind"][] = ["meter", "compressor", "throttle", "valve"];

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
