"use client";

import { setNonce } from "get-nonce";
import { type ReactNode, useEffect } from "react";
import { Ready } from "@/ui/ready";
import { useChangeStream } from "./changes";
import { useSender } from "./outbox";
import { PersonProvider } from "./person";
import { PreferencesProvider } from "./preferences";
import { useServiceWorker } from "./service-worker";

/** Style elements that a library makes carry the page's own nonce: no other would count. */
function useStyleNonce(): void {
  useEffect(() => {
    const nonce = document.querySelector<HTMLElement>("script[nonce]")?.nonce;
    if (nonce) setNonce(nonce);
  }, []);
}

export function Providers({ children }: { children: ReactNode }) {
  useStyleNonce();
  useSender();
  useChangeStream();
  useServiceWorker();
  return (
    <PreferencesProvider>
      <PersonProvider>
        {children}
        <Ready />
      </PersonProvider>
    </PreferencesProvider>
  );
}
