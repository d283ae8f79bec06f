"use client";

import type { ComponentType, ReactNode } from "react";
import type { CheckId } from "@/core/checks";
import { useDraft } from "../../session/storage";
import { AirflowCheck } from "../checks/airflow/airflow-check";
import { BorescopeCheck } from "../checks/borescope/borescope-check";
import { ChainCheck } from "../checks/chain/chain-check";
import { CircuitCheck } from "../checks/circuit/circuit-check";
import { CrankcaseCheck } from "../checks/crankcase/crankcase-check";
import { HoldCheck } from "../checks/hold/hold-check";
import { OutputCheck } from "../checks/output/output-check";
import { PinchCheck } from "../checks/pinch/pinch-check";
import { ProbeCheck } from "../checks/probe/probe-check";
import { InstrumentShelf } from "../checks/shelf";
import { SmokeCheck } from "../checks/smoke/smoke-check";
import { TrimsCheck } from "../checks/trims/trims-check";
import { VacuumCheck } from "../checks/vacuum/vacuum-check";
import { ValveCheck } from "../checks/valve/valve-check";
import { StationFrame } from "../station-frame";
import { useJob } from "../use-job";

/** Each kind's instrument; the look has a station of its own. */
const INSTRUMENTS: Record<Exclude<CheckId, "look">, ComponentType<{ head: ReactNode }>> = {
  trims: TrimsCheck,
  probe: ProbeCheck,
  vacuum: VacuumCheck,
  airflow: AirflowCheck,
  crankcase: CrankcaseCheck,
  smoke: SmokeCheck,
  pinch: PinchCheck,
  hold: HoldCheck,
  valve: ValveCheck,
  output: OutputCheck,
  circuit: CircuitCheck,
  chain: ChainCheck,
  borescope: BorescopeCheck,
};

/** The instruments: one check at a time, under recorded conditions. */
export function CheckStation() {
  const { id, state } = useJob();
  const best = state.next.find((n) => n.check !== "look")?.check;
  // The instrument in hand stays in hand, also when the browser was closed in the middle.
  const [kind, setKind] = useDraft<Exclude<CheckId, "look">>(
    `pelota.draft.${id}.instrument`,
    best && best !== "look" ? best : "trims",
  );
  if (!state.vehicle)
    return (
      <StationFrame title="Check" lead="Describe the vehicle first: a check is judged by its facts.">
        {null}
      </StationFrame>
    );
  const Instrument = INSTRUMENTS[kind];
  const head = <InstrumentShelf value={kind} onChange={(next) => next !== "look" && setKind(next)} />;
  return <Instrument key={kind} head={head} />;
}
