/** What a smoke machine is, as its maker says, in the order of its plate. */
export const MACHINE_FIELDS = ["name", "kind", "ratedPressure", "maxFlow", "division", "autoOff"] as const;
