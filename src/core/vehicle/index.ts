export * from "./facts";
export * from "./layout";
export * from "./reach";
