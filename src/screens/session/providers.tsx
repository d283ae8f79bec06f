"use client";

import type { ReactNode } from "react";
import { useChangeStream } from "./changes";
import { useSender } from "./outbox";
import { PersonProvider } from "./person";
import { PreferencesProvider } from "./preferences";

export function Providers({ children }: { children: ReactNode }) {
  useSender();
  useChangeStream();
  return (
    <PreferencesProvider>
      <PersonProvider>{children}</PersonProvider>
    </PreferencesProvider>
  );
}
