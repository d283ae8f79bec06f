"use client";

import { useEffect, useState } from "react";
import { proofOf, type TakenProof } from "@/core/journal";
import { load, save } from "../../../session/storage";

/** Proofs of machines that were taken on this device, whatever the job. */
const KEPT = "pelota.machineProofs";

/** Keeps the proof of a run that was recorded, so that it serves the next job of the session. */
export function keepProof(...run: Parameters<typeof proofOf>): void {
  const proof = proofOf(...run);
  if (proof) save(KEPT, [proof, ...keptProofs().filter((p) => p.machine !== proof.machine)].slice(0, 10));
}

export const keptProofs = (): readonly TakenProof[] => {
  const kept = load<unknown>(KEPT);
  return Array.isArray(kept)
    ? kept.filter((p): p is TakenProof => typeof p?.at === "string" && typeof p?.proof === "object")
    : [];
};

/** The machine that was proved last on this device, by its name. */
export function useLastProved(): string | undefined {
  const [last, setLast] = useState<string>();
  // The server knows nothing of it: it is read once the page stands.
  useEffect(() => setLast(keptProofs()[0]?.machine), []);
  return last;
}
