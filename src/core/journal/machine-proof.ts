import { CHECKS } from "../checks";
import type { EvapSmokeRun } from "../checks/evap-smoke";
import { simulatedDevice } from "../checks/fields";
import { proofFault } from "../checks/smoke";
import type { Limits } from "../shop/limits";
import type { Machine } from "../shop/settings";
import { toSi } from "../units";
import { SESSION } from "./fold";
import type { CheckState } from "./state";

/** A machine's proof, and when it was taken: ISO time. */
export interface TakenProof {
  readonly at: string;
  readonly machine: string;
  readonly proof: NonNullable<EvapSmokeRun["proof"]>;
}

/** The proof that a run was made with, where it holds; none of a stand-in, nor of a machine that was turned down for one system. */
export function proofOf(
  { check, record, at }: Pick<CheckState, "check" | "record" | "at">,
  { machineProof }: Pick<Limits, "machineProof">,
): TakenProof | undefined {
  if (!CHECKS[check].machineProof || simulatedDevice(record) !== undefined) return undefined;
  const run = record as EvapSmokeRun;
  const { machine, proof, regulated } = run;
  if (!proof || regulated || proofFault(run, toSi(machine.ratedPressure), machineProof.value)) return undefined;
  return { at: proof.takenAt ?? (typeof at === "string" ? at : at.from), machine: machine.name, proof };
}

/** The newest proof of a machine that still serves: one of the job's runs, or one kept from another job of this session. */
export function sessionProof(
  checks: readonly Pick<CheckState, "check" | "record" | "at">[],
  kept: readonly TakenProof[],
  machine: Pick<Machine, "name">,
  limits: Pick<Limits, "machineProof">,
  now: number,
): TakenProof | undefined {
  const serves = ({ at, machine: of }: TakenProof) => {
    const age = now - Date.parse(at);
    return of === machine.name && age >= 0 && age < SESSION;
  };
  return [...checks.flatMap((c) => proofOf(c, limits) ?? []), ...kept]
    .filter(serves)
    .toSorted((a, b) => (a.at < b.at ? 1 : -1))[0];
}
