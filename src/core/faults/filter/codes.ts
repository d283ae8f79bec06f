import type { CodeText } from "../family";

const PIPES = ["filter-pipe-front", "filter-pipe-rear"];

export const CODES = [
  { code: "P2002", text: "Particulate filter efficiency too low, bank 1", observation: "code:filter-through" },
  { code: "P2003", text: "Particulate filter efficiency too low, bank 2", observation: "code:filter-through" },
  { code: "P242F", text: "Particulate filter full of ash", observation: "code:filter-full" },
  { code: "P244A", text: "Particulate filter: pressure difference too low", observation: "code:filter-through", ours: PIPES },
  { code: "P244B", text: "Particulate filter: pressure difference too high", observation: "code:filter-full" },
  { code: "P2452", text: "Particulate filter pressure sensor circuit", observation: "code:filter-sensor", ours: PIPES },
  { code: "P2453", text: "Particulate filter pressure sensor out of range", observation: "code:filter-sensor", ours: PIPES },
  { code: "P2454", text: "Particulate filter pressure sensor signal low", observation: "code:filter-sensor", ours: PIPES },
  { code: "P2455", text: "Particulate filter pressure sensor signal high", observation: "code:filter-sensor", ours: PIPES },
  { code: "P2458", text: "Particulate filter: regeneration takes too long", observation: "code:filter-full" },
  { code: "P2459", text: "Particulate filter regenerates too often", observation: "code:filter-full" },
  { code: "P2463", text: "Particulate filter: too much soot", observation: "code:filter-full" },
] as const satisfies readonly CodeText[];
