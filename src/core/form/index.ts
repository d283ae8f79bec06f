export * from "./fields";
export * from "./form";
export * from "./form-field";
export * from "./gauge";
export * from "./path";
export * from "./typed";
