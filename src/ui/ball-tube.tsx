"use client";

import { type KeyboardEvent, type PointerEvent, useRef } from "react";

const W = 120;
const H = 320;
const TOP = 24;
const BOTTOM = 300;

/**
 * A flow ball in its tapered tube: dragged (or moved by arrow keys) to match the real one.
 * `onMove` follows the drag, with nothing where it was broken off; `onSettle` comes when the hand lets go.
 */
export function BallTube({
  label,
  value,
  max,
  unit,
  marks,
  onMove,
  onSettle,
  disabled = false,
}: {
  label: string;
  value: number;
  max: number;
  unit: string;
  marks: readonly number[];
  onMove: (value: number | undefined) => void;
  onSettle: (value: number) => void;
  disabled?: boolean;
}) {
  const tube = useRef<HTMLDivElement>(null);
  const yOf = (v: number) => BOTTOM - ((BOTTOM - TOP) * Math.min(v, max)) / max;
  const at = (e: PointerEvent) => {
    const box = tube.current?.getBoundingClientRect();
    if (!box) return value;
    const y = ((e.clientY - box.top) / box.height) * (H + 12);
    const v = (max * (BOTTOM - y)) / (BOTTOM - TOP);
    return round(Math.min(max, Math.max(0, v)), max);
  };
  const onKey = (e: KeyboardEvent) => {
    const step = max / 100;
    const moves: Record<string, number> = {
      ArrowUp: step,
      ArrowRight: step,
      ArrowDown: -step,
      ArrowLeft: -step,
      PageUp: 10 * step,
      PageDown: -10 * step,
      Home: -max,
      End: max,
    };
    const by = moves[e.key];
    if (by === undefined || disabled) return;
    e.preventDefault();
    const next = round(Math.min(max, Math.max(0, value + by)), max);
    onMove(next);
    onSettle(next);
  };
  return (
    <div
      ref={tube}
      className={`h-72 w-28 touch-none select-none ${disabled ? "opacity-50" : "cursor-grab"}`}
      role="slider"
      tabIndex={disabled ? -1 : 0}
      aria-label={label}
      aria-orientation="vertical"
      aria-valuemin={0}
      aria-valuemax={max}
      aria-valuenow={value}
      aria-valuetext={`${value} ${unit}`}
      aria-disabled={disabled}
      onKeyDown={onKey}
      onPointerDown={(e) => {
        if (disabled) return;
        e.currentTarget.setPointerCapture(e.pointerId);
        onMove(at(e));
      }}
      onPointerMove={(e) => {
        if (!disabled && e.currentTarget.hasPointerCapture(e.pointerId)) onMove(at(e));
      }}
      onPointerUp={(e) => {
        if (disabled) return;
        const v = at(e);
        onMove(v);
        onSettle(v);
      }}
      onPointerCancel={() => onMove(undefined)}
    >
      <svg viewBox={`0 0 ${W} ${H + 12}`} className="size-full" aria-hidden>
        <path d={`M12 ${TOP - 16} H64 L58 ${BOTTOM + 20} H18 Z`} fill="var(--raised)" stroke="var(--edge)" strokeWidth={2} />
        {marks.map((m) => (
          <g key={m}>
            <line x1={68} x2={78} y1={yOf(m)} y2={yOf(m)} stroke="var(--edge)" strokeWidth={2} />
            <text x={84} y={yOf(m) + 5} fontSize={15} fill="var(--muted)">
              {m}
            </text>
          </g>
        ))}
        <circle cx={38} cy={yOf(value)} r={19} fill="var(--accent)" stroke="var(--on-accent)" strokeWidth={1.5} />
        <circle cx={32} cy={yOf(value) - 7} r={5} fill="#fff" opacity={0.75} />
      </svg>
    </div>
  );
}

const round = (v: number, max: number) => {
  const digits = max > 50 ? 0 : max > 5 ? 1 : 2;
  return Number(v.toFixed(digits));
};
