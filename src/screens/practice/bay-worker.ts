"use client";

import { type Remote, wrap } from "comlink";
import type { BayWorker } from "@/workers/bay.worker";

let api: Remote<BayWorker> | undefined;

/** The practice car's own thread, begun when it is first asked. */
export function bayWorker(): Remote<BayWorker> {
  api ??= wrap<BayWorker>(new Worker(new URL("../../workers/bay.worker.ts", import.meta.url), { type: "module" }));
  return api;
}
