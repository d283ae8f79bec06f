export * from "./channels";
export * from "./decimate";
export * from "./dialect";
export * from "./mapping";
export * from "./obd";
export * from "./read";
export * from "./steady";
export * from "./tank-trace";
