"use client";

import { useEffect } from "react";

/**
 * Keeps the app on this device, so that it opens without the server; only over HTTPS, or on the shop's own machine. A newer
 * build takes over as a page is opened, never under one that is being worked on: what waits and what was typed is kept apart.
 */
export function useServiceWorker(): void {
  useEffect(() => {
    if (!("serviceWorker" in navigator)) return;
    const { serviceWorker } = navigator;
    const register = async () => {
      const registration = await serviceWorker.register("/sw.js", { updateViaCache: "none" });
      if (!registration.waiting || !serviceWorker.controller) return;
      serviceWorker.addEventListener("controllerchange", () => window.location.reload(), { once: true });
      registration.waiting.postMessage("take over");
    };
    // Without one the app works as long as the server is there.
    void register().catch(() => {});
  }, []);
}
