/** Fields of a smoke machine, as its maker rates it, in the order of its plate. */
export const MACHINE_FIELDS = ["name", "kind", "ratedPressure", "maxFlow", "division", "autoOff"] as const;
