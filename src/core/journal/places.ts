import { findingPlaces } from "../faults";
import { BadInput } from "../input";
import { JOINT_IDS, layoutOf, type VehicleRecord, vehicleFacts } from "../vehicle";
import { ANYWHERE, type Bodies, type EntryKind } from "./entries";

/** A place that is none of the list; its words say where it is. */
export const ELSEWHERE = "other";

/** A place by its name, among those of its car. */
export const placeName = (id: string, among: readonly { readonly id: string; readonly name: string }[]): string =>
  among.find((p) => p.id === id)?.name ?? "Another place";

/** The places that an entry names, with the path of each. */
function placesIn(kind: EntryKind, body: object): (readonly [path: string, place: string])[] {
  switch (kind) {
    case "finding":
      return [["body.joint", (body as Bodies["finding"]).joint]];
    case "repair":
      return ((body as Bodies["repair"]).places ?? []).map((place, i) => [`body.places[${i}]`, place]);
    case "displaced": {
      const { joint } = body as Bodies["displaced"];
      return joint === undefined ? [] : [["body.joint", joint]];
    }
    default:
      return [];
  }
}

/**
 * Throws BadInput where an entry names a place that no description of its job's vehicle has.
 * @param described every description of the vehicle so far: a device that has not seen the newest is not wrong for it.
 */
export function validatePlaces(kind: EntryKind, body: object, described: () => readonly VehicleRecord[]): void {
  const unknown = placesIn(kind, body).filter(([, place]) => place !== ELSEWHERE && place !== ANYWHERE && !JOINT_IDS.has(place));
  if (unknown.length === 0) return;
  const causes = new Set(
    described().flatMap((given) => {
      const vehicle = vehicleFacts(given);
      return findingPlaces(layoutOf(vehicle), vehicle).map((p) => p.id);
    }),
  );
  for (const [path, place] of unknown)
    if (!causes.has(place))
      throw new BadInput(`This vehicle has no place "${place}": choose one of the list, or another place`, path);
}
