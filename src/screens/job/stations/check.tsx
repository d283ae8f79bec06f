"use client";

import { type ComponentType, type ReactNode, startTransition, useEffect, useState } from "react";
import { CHECK_IDS, type CheckId } from "@/core/checks";
import { load, save } from "../../session/storage";
import { AirflowCheck } from "../checks/airflow/airflow-check";
import { BackPressureCheck } from "../checks/back-pressure/back-pressure-check";
import { BenchPartCheck } from "../checks/bench-part/bench-part-check";
import { BoostCheck } from "../checks/boost/boost-check";
import { BorescopeCheck } from "../checks/borescope/borescope-check";
import { CabinCheck } from "../checks/cabin/cabin-check";
import { CapCheck } from "../checks/cap/cap-check";
import { ChainCheck } from "../checks/chain/chain-check";
import { CircuitCheck } from "../checks/circuit/circuit-check";
import { CrankcaseCheck } from "../checks/crankcase/crankcase-check";
import { DecayCheck } from "../checks/decay/decay-check";
import { EgrCheck } from "../checks/egr/egr-check";
import { ExhaustGasCheck } from "../checks/exhaust-gas/exhaust-gas-check";
import { FilterCheck } from "../checks/filter/filter-check";
import { HoldCheck } from "../checks/hold/hold-check";
import { OutputCheck } from "../checks/output/output-check";
import { PinchCheck } from "../checks/pinch/pinch-check";
import { PressureTestCheck } from "../checks/pressure-test/pressure-test-check";
import { ProbeCheck } from "../checks/probe/probe-check";
import { PulldownCheck } from "../checks/pulldown/pulldown-check";
import { SecondaryAirCheck } from "../checks/secondary-air/secondary-air-check";
import { InstrumentShelf } from "../checks/shelf";
import { EvapSmokeCheck, SmokeCheck } from "../checks/smoke/smoke-check";
import { TankSensorCheck } from "../checks/tank-sensor/tank-sensor-check";
import { TrimsCheck } from "../checks/trims/trims-check";
import { WantedPlace } from "../checks/use-check-form";
import { VacuumCheck } from "../checks/vacuum/vacuum-check";
import { ValveCheck } from "../checks/valve/valve-check";
import { VentPathCheck } from "../checks/vent-path/vent-path-check";
import { KnownGoodHere } from "../engine-card";
import { StationFrame } from "../station-frame";
import { useJob } from "../use-job";

/** The instrument of each kind that lies on a shelf. */
const INSTRUMENTS: Readonly<Record<CheckId, ComponentType<{ head: ReactNode }> | undefined>> = {
  // It is a station of its own.
  look: undefined,
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
  "evap-smoke": EvapSmokeCheck,
  decay: DecayCheck,
  pulldown: PulldownCheck,
  "vent-path": VentPathCheck,
  cap: CapCheck,
  "tank-sensor": TankSensorCheck,
  "pressure-test": PressureTestCheck,
  filter: FilterCheck,
  "secondary-air": SecondaryAirCheck,
  boost: BoostCheck,
  "exhaust-gas": ExhaustGasCheck,
  egr: EgrCheck,
  "back-pressure": BackPressureCheck,
  "bench-part": BenchPartCheck,
  cabin: CabinCheck,
};

/** The instruments: one check at a time, under recorded conditions. */
export function CheckStation({
  wanted,
  at,
  onInstrument,
}: {
  /** The check that somebody came here for, and the part or way in that it is wanted at */
  wanted: CheckId | undefined;
  at?: string | undefined;
  onInstrument: (instrument?: CheckId) => void;
}) {
  const { id, state } = useJob();
  const best = wanted && INSTRUMENTS[wanted] ? wanted : state.next.find((n) => INSTRUMENTS[n.check])?.check;
  const [kind, setKind] = useState(best ?? (CHECK_IDS.find((id) => INSTRUMENTS[id]) as CheckId));
  const inHand = `pelota.draft.${id}.instrument`;
  // Work begun on an instrument is gone on with, also when the browser was closed in the middle.
  useEffect(() => {
    if (wanted) return;
    const last = load<CheckId>(inHand);
    if (last && load(`pelota.draft.${id}.${last}`) !== undefined) setKind(last);
  }, [id, inHand, wanted]);
  useEffect(() => save(inHand, kind), [inHand, kind]);
  useEffect(() => {
    onInstrument(kind);
    return () => onInstrument();
  }, [kind, onInstrument]);
  if (!state.vehicle)
    return (
      <StationFrame title="Check" lead="Describe the vehicle first: a check is judged by its facts.">
        {null}
      </StationFrame>
    );
  const InHand = INSTRUMENTS[kind];
  return (
    InHand && (
      <WantedPlace value={kind === wanted ? at : undefined}>
        <KnownGoodHere check={kind} />
        <InHand key={kind} head={<InstrumentShelf value={kind} onChange={(next) => startTransition(() => setKind(next))} />} />
      </WantedPlace>
    )
  );
}
