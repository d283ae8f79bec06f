import { ZONE_NAMES, type ZoneId } from "./layout";

type Place = { readonly id: string; readonly name: string; readonly from: string };

/**
 * Places as a list to choose from: the likeliest first, then each in its circuit, once.
 * @param places the likeliest first; @param likely how many of them are set before the circuits.
 */
export function placeGroups(
  places: readonly Place[],
  likely = 4,
): readonly (readonly [string, readonly (readonly [string, string])[]])[] {
  const option = (j: Place) => [j.id, j.name] as const;
  const rest = places.slice(likely);
  const zones = [...new Set(rest.map((j) => j.from))];
  return [
    ...(likely > 0 ? [["Likely now", places.slice(0, likely).map(option)] as const] : []),
    ...zones.map((zone) => [ZONE_NAMES[zone as ZoneId], rest.filter((j) => j.from === zone).map(option)] as const),
  ];
}
