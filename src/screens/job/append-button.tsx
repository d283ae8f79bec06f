"use client";

import { type ReactNode, useState } from "react";
import { Button } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import type { NewEntry } from "../session/device";
import { useJob } from "./use-job";

/** A button that records something, and says so where it was not taken. */
export function AppendButton({
  entries,
  children,
  onDone,
  ...look
}: {
  entries: readonly NewEntry[];
  children: ReactNode;
  onDone?: () => void;
  disabled?: boolean;
  className?: string;
}) {
  const { append } = useJob();
  const [error, setError] = useState<string>();
  return (
    <>
      <Button
        {...look}
        onClick={async () => {
          const wrong = await append(...entries);
          setError(wrong);
          if (!wrong) onDone?.();
        }}
      >
        {children}
      </Button>
      {error && <ErrorNote>{error}</ErrorNote>}
    </>
  );
}
