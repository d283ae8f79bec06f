"use client";

import { type ReactNode, useState } from "react";
import { Button } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import type { NewEntry } from "../session/device";
import { useJob } from "./use-job";

/** A button that records something, and says so where it was not taken. */
export function AppendButton({ entries, children }: { entries: readonly NewEntry[]; children: ReactNode }) {
  const { append } = useJob();
  const [error, setError] = useState<string>();
  return (
    <>
      <Button onClick={async () => setError(await append(...entries))}>{children}</Button>
      {error && <ErrorNote>{error}</ErrorNote>}
    </>
  );
}
