export * from "./air-map";
export * from "./evap";
export * from "./extract";
export * from "./facts";
export * from "./layout";
export * from "./map-names";
export * from "./reach";
export * from "./teardown";
