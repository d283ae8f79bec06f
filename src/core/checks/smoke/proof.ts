import { type Quantity, toSi } from "../../units";
import type { MachineProof } from "../contract";
import type { SmokeRun } from "./fields";

/** The proof that a run's machine was given; `set` is what it was made or regulated to give, gauge. */
export function smokeProof({ machine, proof }: Pick<SmokeRun, "machine" | "proof">, set: Quantity): MachineProof | undefined {
  if (!proof) return undefined;
  return {
    machine: machine.name,
    ...(proof.pressure ? { share: toSi(proof.pressure) / toSi(set) } : {}),
    ...(proof.takenAt ? { takenAt: proof.takenAt } : {}),
  };
}
