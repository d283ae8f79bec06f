import { faultsAt } from "../../practice/car";
import { type Bay, chosen, type Setup, showsTo } from "../../practice/readers/bay";
import { lookList } from ".";
import type { LookRecord } from "./fields";

/** Findings of eyes, hands and ears; one look in thirty takes something sound for bad. */
export const simulate = ({ car, noise }: Bay, setup: Setup): LookRecord => {
  const list = lookList(car.context.layout, car.context.vehicle);
  const wrong = noise.uniform() < 1 / 30 ? Math.floor(noise.uniform(3, list.length - 2)) : -1;
  const asked = chosen<readonly string[] | undefined>(setup, "ids", undefined);
  return {
    items: list
      .filter((item) => !asked || asked.includes(item.id))
      .map((item, i) => {
        const there = item.joint ? faultsAt(car, item.joint) : [];
        const found = there.some((f) => showsTo(car, f, "eye")) || i === wrong;
        return { id: item.id, state: found ? "found" : "fine" };
      }),
  };
};
