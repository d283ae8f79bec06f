"use client";

import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import { useImmediate } from "./use-immediate";

const R = 92;
const CX = 110;
const CY = 108;
/** The scale runs from lower left to lower right, degrees from straight up. */
const FROM = -130;
const TO = 130;

const angleOf = (value: number, min: number, max: number) =>
  FROM + ((TO - FROM) * (Math.min(max, Math.max(min, value)) - min)) / (max - min);
const at = (degrees: number, radius: number) => {
  const a = (degrees * Math.PI) / 180;
  return { x: CX + radius * Math.sin(a), y: CY - radius * Math.cos(a) };
};
const arc = (from: number, to: number, radius: number) => {
  const [a, b] = [at(from, radius), at(to, radius)];
  return `M${a.x.toFixed(1)} ${a.y.toFixed(1)} A${radius} ${radius} 0 ${to - from > 180 ? 1 : 0} 1 ${b.x.toFixed(1)} ${b.y.toFixed(1)}`;
};

/** A round gauge whose needle is set to match the real one: dragged, or moved by arrow keys. */
export function Dial({
  label,
  value,
  min,
  max,
  step,
  unit,
  band,
  onMove,
}: {
  label: string;
  /** Undefined while nothing was read */
  value: number | undefined;
  min: number;
  max: number;
  step: number;
  /** Unit and kind, as it stands on the face */
  unit: string;
  /** Where it should stand */
  band?: { readonly low: number; readonly high: number } | undefined;
  onMove: (value: number) => void;
}) {
  const face = useRef<HTMLDivElement>(null);
  const [pointing, move] = useImmediate<number | undefined>(value, (v) => v !== undefined && onMove(v));
  const shown = pointing ?? min;
  const round = (v: number) => Number((Math.round(Math.min(max, Math.max(min, v)) / step) * step).toFixed(4));
  const pointed = (e: PointerEvent) => {
    const box = face.current?.getBoundingClientRect();
    if (!box) return shown;
    const x = ((e.clientX - box.left) / box.width) * 220 - CX;
    const y = ((e.clientY - box.top) / box.height) * 190 - CY;
    const degrees = (Math.atan2(x, -y) * 180) / Math.PI;
    return round(min + ((max - min) * (Math.min(TO, Math.max(FROM, degrees)) - FROM)) / (TO - FROM));
  };
  const onKey = (e: KeyboardEvent) => {
    const moves: Record<string, number> = {
      ArrowUp: step,
      ArrowRight: step,
      ArrowDown: -step,
      ArrowLeft: -step,
      PageUp: 10 * step,
      PageDown: -10 * step,
      Home: min - max,
      End: max - min,
    };
    const by = moves[e.key];
    if (by === undefined) return;
    e.preventDefault();
    move(round(shown + by));
  };
  const ticks = Array.from({ length: 11 }, (_, i) => min + ((max - min) * i) / 10);
  const needle = at(angleOf(shown, min, max), R - 16);
  return (
    <div
      ref={face}
      className="w-56 max-w-full cursor-grab touch-none select-none"
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuemin={min}
      aria-valuemax={max}
      aria-valuenow={shown}
      aria-valuetext={pointing === undefined ? "not read yet" : `${pointing} ${unit}`}
      onKeyDown={onKey}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        move(pointed(e));
      }}
      onPointerMove={(e) => {
        if (e.currentTarget.hasPointerCapture(e.pointerId)) move(pointed(e));
      }}
    >
      <svg viewBox="0 0 220 190" className="w-full" aria-hidden>
        <path d={arc(FROM, TO, R)} fill="none" stroke="var(--edge)" strokeWidth={2} />
        {band && (
          <path
            d={arc(angleOf(band.low, min, max), angleOf(band.high, min, max), R - 5)}
            fill="none"
            stroke="var(--calm)"
            strokeWidth={9}
          />
        )}
        {ticks.map((t, i) => {
          const [a, b, c] = [R, R - (i % 2 ? 8 : 14), R - 28].map((r) => at(angleOf(t, min, max), r)) as [
            { x: number; y: number },
            { x: number; y: number },
            { x: number; y: number },
          ];
          return (
            <g key={t}>
              <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="var(--muted)" strokeWidth={i % 2 ? 1.5 : 2.5} />
              {i % 2 === 0 && (
                <text x={c.x} y={c.y + 5} textAnchor="middle" fontSize={14} fill="var(--muted)">
                  {Number(t.toFixed(2))}
                </text>
              )}
            </g>
          );
        })}
        <line
          x1={CX}
          y1={CY}
          x2={needle.x}
          y2={needle.y}
          stroke="var(--live)"
          strokeWidth={4}
          strokeLinecap="round"
          opacity={pointing === undefined ? 0.35 : 1}
        />
        <circle cx={CX} cy={CY} r={9} fill="var(--live)" />
        <text x={CX} y={CY + 48} textAnchor="middle" fontSize={24} fontWeight={700} fill="var(--ink)">
          {pointing === undefined ? "–" : pointing}
        </text>
        <text x={CX} y={CY + 68} textAnchor="middle" fontSize={14} fill="var(--muted)">
          {unit}
        </text>
      </svg>
    </div>
  );
}
