import { formatNumber, type Quantity, toSi } from "../../units";
import type { MachineProof } from "../contract";
import type { SmokeRun } from "./fields";

/**
 * Why a machine's proof is none: no smoke, no pressure, a ball that was up; undefined where it holds.
 * @param set Pa gauge, that it was made or regulated to give. @param least share of that which counts.
 */
export function proofFault(
  { machine, proof }: Pick<SmokeRun, "machine" | "proof">,
  set: number,
  least: number,
): string | undefined {
  if (!proof)
    return "the machine was never proved: clamp the hose, see rated pressure and the ball at the bottom, then run again";
  if (!proof.smokeSeen) return "no smoke came from the open hose at proof: check heater and fluid";
  if (!machine.plain && !proof.pressure)
    return "nobody read the pressure with the hose clamped: prove the machine, then run again";
  if (proof.pressure && toSi(proof.pressure) < least * set)
    return `the machine proved only ${formatNumber((100 * toSi(proof.pressure)) / set, 0)} % of its rated pressure (${formatNumber(least * 100, 0)} % needed): service it first`;
  if (!machine.plain && !proof.ballAtBottom)
    return "with the hose clamped the ball did not sit at the bottom: the machine or its hose leaks";
  return undefined;
}

/** The proof that a run's machine was given; `set` is what it was made or regulated to give, gauge. */
export function smokeProof({ machine, proof }: Pick<SmokeRun, "machine" | "proof">, set: Quantity): MachineProof | undefined {
  if (!proof) return undefined;
  return {
    machine: machine.name,
    ...(proof.pressure ? { share: toSi(proof.pressure) / toSi(set) } : {}),
    ...(proof.takenAt ? { takenAt: proof.takenAt } : {}),
  };
}
