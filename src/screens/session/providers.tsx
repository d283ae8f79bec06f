"use client";

import type { ReactNode } from "react";
import { PersonProvider } from "./person";
import { PreferencesProvider } from "./preferences";

export function Providers({ children }: { children: ReactNode }) {
  return (
    <PreferencesProvider>
      <PersonProvider>{children}</PersonProvider>
    </PreferencesProvider>
  );
}
