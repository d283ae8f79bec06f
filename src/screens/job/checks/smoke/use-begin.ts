"use client";

import { useState } from "react";
import type { EvapSmokeDraft } from "@/core/checks/evap-smoke";
import { sessionProof, type TakenProof } from "@/core/journal";
import { typedQuantity } from "../../fields";
import { useJob } from "../../use-job";
import { displacedEntry } from "../use-record-check";
import { keptProofs } from "./kept-proofs";
import type { SmokeHandle } from "./use-smoke-run";

type Proved = Pick<EvapSmokeDraft, "proved" | "provedAt"> & Partial<EvapSmokeDraft>;

/** How the hose goes on: what the set-up takes off is listed, and the run begins; with the session's proof where one serves. */
export function useBegin(run: SmokeHandle) {
  const { state, shop, append } = useJob();
  const [error, setError] = useState<string>();
  const begin = async (proof: Proved) => {
    const plan = run.plan();
    if (!plan) return;
    const open = state.offCar.filter((i) => i.open);
    const fresh = plan.displaces.filter((d) => !open.some((i) => i.what === d.what));
    if (fresh.length > 0) {
      const wrong = await append(...fresh.map(displacedEntry));
      setError(wrong);
      if (wrong) return;
    }
    run.set({
      phase: "run",
      ...proof,
      startedAt: Date.now(),
      ventAt: Date.now(),
      endedAt: null,
      samples: [],
      source: undefined,
      seen: [],
      arrivals: [],
      flow: run.maxFlow,
      pressure: 0,
    });
  };
  // A practice bay has a clock and a machine of its own.
  const earlier = sessionProof(state.checks, state.practice ? [] : keptProofs(), run.machine, shop.limits, Date.now());
  return {
    error,
    begin,
    earlier,
    beginAsProved: ({ at, proof }: TakenProof) =>
      begin({
        proved: true,
        provedAt: at,
        proofPressure: typedQuantity(proof.pressure),
        ballAtBottom: proof.ballAtBottom,
        smokeSeen: proof.smokeSeen,
      }),
  };
}
