"use client";

import type { ReactNode } from "react";
import { useSender } from "./outbox";
import { PersonProvider } from "./person";
import { PreferencesProvider } from "./preferences";

export function Providers({ children }: { children: ReactNode }) {
  useSender();
  return (
    <PreferencesProvider>
      <PersonProvider>{children}</PersonProvider>
    </PreferencesProvider>
  );
}
