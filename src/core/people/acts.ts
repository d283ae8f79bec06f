import { canonicalJson } from "../canonical";
import type { Machine, Shop } from "../shop/settings";
import type { Act } from "./roles";

const differ = (a: unknown, b: unknown) => canonicalJson(a) !== canonicalJson(b);

/** Fields of a machine that are looked after without changing what is judged by it. */
const withoutService = ({ service: _, ...rest }: Machine) => rest;

/** Right that a change of the shop's settings asks for. */
export function shopActs(before: Shop, after: Shop): Act[] {
  const machines = [...before.machines, ...after.machines].map(({ id }) => id);
  const of = (shop: Shop, id: string) => shop.machines.find((m) => m.id === id);
  const rated = machines.some((id) => {
    const [was, is] = [of(before, id), of(after, id)];
    if (!is) return was?.calibration !== undefined;
    return was ? differ(withoutService(was), withoutService(is)) : is.calibration !== undefined;
  });
  return [
    ...(differ(before.limits, after.limits) ? (["change-limits"] as const) : []),
    ...(differ(before.house, after.house) || before.name !== after.name ? (["change-house"] as const) : []),
    ...(rated ? (["calibrate"] as const) : []),
    ...(differ(before.machines, after.machines) || differ(before.instruments, after.instruments)
      ? (["keep-equipment"] as const)
      : []),
  ];
}
