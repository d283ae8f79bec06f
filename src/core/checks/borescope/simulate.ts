import { type Bay, chosen, faultsThere, placeOf, type Setup } from "../../practice/readers/bay";
import { COKED } from "../../practice/readers/standing";
import type { BorescopeRecord } from "./fields";

export const simulate = (bay: Bay, setup: Setup): BorescopeRecord => {
  const { noise } = bay;
  const place = placeOf(setup);
  const blocked = faultsThere(bay, place, ...COKED)[0];
  const share = Math.round((blocked ? 55 - 35 * blocked.size : 95) + noise.normal(2));
  const names = chosen<readonly string[]>(setup, "names", ["Port 1"]);
  return {
    joint: place,
    when: chosen(setup, "when", "as-found"),
    ports: names.map((name) => ({ name, straight: Math.min(100, share + 2), side: Math.min(100, share) })),
    pictures: [],
  };
};
