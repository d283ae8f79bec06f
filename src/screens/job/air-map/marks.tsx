import { formatQuantity, type Quantity } from "@/core/units";
import type { JointPlace } from "@/core/vehicle";

const POINTS = Array.from({ length: 16 }, (_, i) => {
  const radius = i % 2 === 0 ? 13 : 6.5;
  const angle = (i * Math.PI) / 8;
  return `${(radius * Math.sin(angle)).toFixed(1)},${(-radius * Math.cos(angle)).toFixed(1)}`;
}).join(" ");

/** A leak: a burst at its joint, with the joint's name and its size. */
export function Burst({ x, y, name, size }: { x: number; y: number; name?: string; size?: Quantity | undefined }) {
  const label = [name, size ? `≈ ${formatQuantity(size, 1)}` : ""].filter(Boolean).join(" ");
  return (
    <g transform={`translate(${x} ${y})`} className="pointer-events-none">
      <polygon
        points={POINTS}
        fill="var(--ember)"
        stroke="var(--bg)"
        strokeWidth={1.5}
        transform={name ? undefined : "scale(0.7)"}
      />
      {label && (
        <text
          y={-20}
          textAnchor="middle"
          fontSize={14}
          fontWeight={700}
          fill="var(--ember)"
          stroke="var(--bg)"
          strokeWidth={5}
          paintOrder="stroke"
        >
          {label}
        </text>
      )}
    </g>
  );
}

interface MarkProps {
  readonly place: JointPlace;
  /** Width of the map, so that labels at its edges stay inside */
  readonly width: number;
  readonly blocked: boolean;
  readonly heldOpen: boolean;
  readonly entry: boolean;
  readonly displaced: boolean;
}

/** What stands in a joint: meter, compressor, throttle, valve; and what is done to it: blocked, held open, smoke in. */
export function JointMark({ place, width, blocked, heldOpen, entry, displaced }: MarkProps) {
  const { joint, x, y } = place;
  const anchor = x > width - 90 ? "end" : x < 90 ? "start" : "middle";
  const named = !entry && !blocked && !heldOpen;
  return (
    <g transform={`translate(${x} ${y})`} className="pointer-events-none">
      <Body
        kind={joint.kind}
        name={named ? joint.name : ""}
        heldOpen={heldOpen}
        at={
          joint.id === "egr-valve" || joint.id === "bypass-valve"
            ? "below"
            : joint.id === "booster-check-valve" || joint.id === "pcv-valve"
              ? "left"
              : "right"
        }
      />
      {(blocked || (displaced && !entry && !heldOpen)) && (
        <>
          <rect x={-6} y={-20} width={12} height={40} fill="var(--amber)" stroke="var(--bg)" />
          <Label text={`${joint.name}${blocked ? ", blocked" : ""}`} y={-28} colour="var(--amber)" anchor={anchor} />
        </>
      )}
      {heldOpen && <Label text={`${joint.name}, held open`} y={48} colour="var(--live)" />}
      {entry && (
        <>
          <path d="M-4 -48 h8 v22 h9 L0 -10 L-13 -26 h9 Z" fill="var(--live)" stroke="var(--bg)" />
          <Label text="Smoke in" y={-54} colour="var(--live)" />
        </>
      )}
    </g>
  );
}

function Label({
  text,
  y,
  colour,
  anchor = "middle",
}: {
  text: string;
  y: number;
  colour: string;
  anchor?: "start" | "middle" | "end";
}) {
  return (
    <text y={y} textAnchor={anchor} fontSize={13} fill={colour} stroke="var(--bg)" strokeWidth={5} paintOrder="stroke">
      {text}
    </text>
  );
}

function Body({
  kind,
  name,
  heldOpen,
  at,
}: {
  kind: JointPlace["joint"]["kind"];
  name: string;
  heldOpen: boolean;
  at: "left" | "right" | "below";
}) {
  const ink = "var(--ink)";
  switch (kind) {
    case "meter":
      return (
        <>
          <line y1={-26} y2={26} stroke={ink} strokeWidth={3} />
          <Label text={name} y={-34} colour="var(--muted)" />
        </>
      );
    case "compressor":
      return (
        <>
          <circle r={20} fill="var(--bg)" stroke={ink} strokeWidth={2} />
          <path d="M-9 -6 Q0 6 9 -6 M-9 6 Q0 -6 9 6" fill="none" stroke={ink} strokeWidth={2} />
          <Label text={name} y={-28} colour="var(--muted)" />
        </>
      );
    case "throttle":
      return (
        <>
          <line y1={-24} y2={24} stroke={ink} strokeWidth={3} transform={heldOpen ? "rotate(78)" : undefined} />
          {!heldOpen && <Label text={name} y={-32} colour="var(--muted)" />}
        </>
      );
    case "valve":
      return (
        <>
          <circle r={12} fill="var(--bg)" />
          <path d="M-10 -8 L10 8 V-8 L-10 8 Z" fill="var(--bg)" stroke={ink} strokeWidth={2} />
          <text
            x={at === "below" ? 0 : at === "left" ? -16 : 16}
            y={at === "below" ? 28 : 5}
            textAnchor={at === "below" ? "middle" : at === "left" ? "end" : "start"}
            fontSize={13}
            fill="var(--muted)"
            stroke="var(--bg)"
            strokeWidth={4}
            paintOrder="stroke"
          >
            {name}
          </text>
        </>
      );
    case "seal":
      return <circle r={3} fill="var(--muted)" stroke="var(--bg)" />;
    default:
      return null;
  }
}
