export * from "./cause";
export * from "./causes";
export * from "./codes";
export * from "./engine/mixture";
export * from "./families";
export * from "./family";
export * from "./row";
export * from "./trait";
