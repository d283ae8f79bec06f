export * from "./fields";
export * from "./form";
export * from "./form-field";
export * from "./form-of";
export * from "./gauge";
export * from "./path";
export * from "./typed";
