"use client";

import { useVirtualizer } from "@tanstack/react-virtual";
import { type ReactNode, useRef } from "react";

/** A list of any length: only the rows in sight, and some around them, are on the page. */
export function LongList({
  count,
  keyOf,
  row,
}: {
  count: number;
  keyOf: (index: number) => string;
  row: (index: number) => ReactNode;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count,
    getScrollElement: () => frame.current,
    getItemKey: keyOf,
    estimateSize: () => 68,
    overscan: 20,
  });
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be scrolled by keyboard, too
    <div ref={frame} className="max-h-[65vh] overflow-y-auto" tabIndex={0}>
      <ol className="relative" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map((item) => (
          <li
            key={item.key}
            ref={rows.measureElement}
            data-index={item.index}
            aria-setsize={count}
            aria-posinset={item.index + 1}
            className="absolute inset-x-0 top-0 border-b border-line"
            style={{ transform: `translateY(${item.start}px)` }}
          >
            {row(item.index)}
          </li>
        ))}
      </ol>
    </div>
  );
}
