export * from "./field";
export * from "./form";
export * from "./gauge";
export * from "./path";
export * from "./typed";
