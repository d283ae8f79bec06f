export * from "./channels";
export * from "./dialect";
export * from "./read";
export * from "./steady";
