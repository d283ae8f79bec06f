"use client";

import { type ReactNode, useEffect, useRef } from "react";
import { buttonClass } from "./button";

/** A panel that drops from its key and goes by a tap elsewhere or Escape. What it holds stays part of the form around it. */
export function DropPanel({
  label,
  name,
  open,
  className = "",
  panel,
  children,
}: {
  label: ReactNode;
  /** Accessible name, where the label is a sign alone */
  name?: string;
  /** Open from the first */
  open?: boolean;
  className?: string;
  /** Where the panel stands and how wide it is */
  panel: string;
  children: ReactNode;
}) {
  const ref = useRef<HTMLDetailsElement>(null);
  useEffect(() => {
    const shut = (e: Event) => {
      const details = ref.current;
      if (!details?.open) return;
      const outside = e instanceof MouseEvent && !details.contains(e.target as Node);
      if (!outside && !(e instanceof KeyboardEvent && e.key === "Escape")) return;
      details.open = false;
      if (e instanceof KeyboardEvent) details.querySelector("summary")?.focus();
    };
    document.addEventListener("click", shut);
    document.addEventListener("keydown", shut);
    return () => {
      document.removeEventListener("click", shut);
      document.removeEventListener("keydown", shut);
    };
  }, []);
  return (
    <details ref={ref} open={open} className={`relative ${className}`}>
      <summary aria-label={name} className={`${buttonClass("plain")} list-none [&::-webkit-details-marker]:hidden`}>
        {label}
      </summary>
      <div className={`absolute z-30 rounded-md border border-edge bg-panel p-4 shadow-lg ${panel}`}>{children}</div>
    </details>
  );
}
