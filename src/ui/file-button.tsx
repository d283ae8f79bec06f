"use client";

import { type ReactNode, useRef } from "react";
import { Button } from "./button";

/** A button that asks for a file; the same file may be chosen again. */
export function FileButton({
  label,
  accept,
  look = "plain",
  camera = false,
  onFile,
  children,
}: {
  /** Accessible name of the file, for those who cannot see the button */
  label: string;
  accept: string;
  look?: "primary" | "plain";
  /** Ask the device's camera rather than its files */
  camera?: boolean;
  onFile: (file: File) => void;
  children: ReactNode;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        {...(camera ? { capture: "environment" as const } : {})}
        className="sr-only"
        aria-label={label}
        tabIndex={-1}
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = "";
          if (file) onFile(file);
        }}
      />
      <Button look={look} onClick={() => input.current?.click()}>
        {children}
      </Button>
    </>
  );
}
