"use client";

import { useState } from "react";
import { Choice } from "@/ui/choice";
import { SmokeCheck } from "../checks/smoke/smoke-check";
import { TrimsCheck } from "../checks/trims/trims-check";
import { StationFrame } from "../station-frame";
import { useJob } from "../use-job";

/** The instruments: one check at a time, under recorded conditions. */
export function CheckStation() {
  const { state } = useJob();
  const best = state.next.find((n) => n.check !== "look");
  const [kind, setKind] = useState<"trims" | "smoke">(best?.check === "smoke" ? "smoke" : "trims");
  if (!state.vehicle)
    return (
      <StationFrame title="Check" lead="Describe the vehicle first: a check is judged by its facts.">
        {null}
      </StationFrame>
    );
  const head = (
    <>
      <h2 className="sr-only">Check</h2>
      <Choice
        label="Check"
        hideLabel
        options={[
          ["trims", "Fuel-trim survey"],
          ["smoke", "Smoke run"],
        ]}
        value={kind}
        onChange={setKind}
      />
    </>
  );
  return kind === "trims" ? <TrimsCheck head={head} /> : <SmokeCheck head={head} />;
}
