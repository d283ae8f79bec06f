export * from "./parse";
export * from "./plausible";
export * from "./quantity";
export * from "./schema";
export * from "./units";
