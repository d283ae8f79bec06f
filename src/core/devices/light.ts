/** Lights that smoke is looked for with. */
export const LAMPS = {
  none: "No lamp",
  lamp: "Strong lamp",
  blue: "Blue or UV light",
  laser: "Laser sheet",
} as const;
export type Lamp = keyof typeof LAMPS;
/** An open door lets a draught in, and the day */
export const DOORS = { shut: "Shut: still air", open: "Open: a draught, and the day" } as const;
export interface Light {
  readonly lamp: Lamp;
  readonly door: keyof typeof DOORS;
}
export const STILL_AND_LIT: Light = { lamp: "lamp", door: "shut" };
