"use client";

import { ChevronLeft, ChevronRight, ZoomIn, ZoomOut } from "lucide-react";
import { type ReactNode, useMemo, useRef, useState } from "react";
import { IconButton } from "./button";

/** The stretch of an axis that is shown, within its whole. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/** A span that zooms about its middle and pans, never leaving [low, high]. */
export function useSpan(low: number, high: number, narrowest: number) {
  const [shown, setShown] = useState<Span>();
  const from = Math.max(low, Math.min(shown?.from ?? low, high));
  const to = Math.min(high, Math.max(shown?.to ?? high, from));
  return useMemo(() => {
    const show = (middle: number, width: number) => {
      const w = Math.min(high - low, Math.max(narrowest, width));
      const start = Math.min(Math.max(low, middle - w / 2), high - w);
      setShown({ from: start, to: start + w });
    };
    const width = to - from;
    const middle = (from + to) / 2;
    return {
      from,
      to,
      zoom: (factor: number) => show(middle, width / factor),
      pan: (share: number) => show(middle + share * width, width),
    };
  }, [from, to, low, high, narrowest]);
}
export type SpanHandle = ReturnType<typeof useSpan>;

/** The keys of a span: earlier, in, out, later. */
export function SpanKeys({ span, less, more }: { span: SpanHandle; less: string; more: string }) {
  return (
    <span className="flex">
      <IconButton label={less} onClick={() => span.pan(-0.5)}>
        <ChevronLeft aria-hidden size={18} />
      </IconButton>
      <IconButton label="Zoom in" onClick={() => span.zoom(2)}>
        <ZoomIn aria-hidden size={18} />
      </IconButton>
      <IconButton label="Zoom out" onClick={() => span.zoom(0.5)}>
        <ZoomOut aria-hidden size={18} />
      </IconButton>
      <IconButton label={more} onClick={() => span.pan(0.5)}>
        <ChevronRight aria-hidden size={18} />
      </IconButton>
    </span>
  );
}

/** Drags a span sideways by hand; the keys do the same without a pointer. */
export function PanArea({ span, children }: { span: SpanHandle; children: ReactNode }) {
  const last = useRef<number>(undefined);
  return (
    <div
      className="h-full cursor-grab touch-pan-y"
      onPointerDown={(e) => {
        last.current = e.clientX;
        e.currentTarget.setPointerCapture(e.pointerId);
      }}
      onPointerMove={(e) => {
        if (last.current === undefined) return;
        span.pan((last.current - e.clientX) / e.currentTarget.clientWidth);
        last.current = e.clientX;
      }}
      onPointerUp={() => {
        last.current = undefined;
      }}
      onPointerCancel={() => {
        last.current = undefined;
      }}
    >
      {children}
    </div>
  );
}
