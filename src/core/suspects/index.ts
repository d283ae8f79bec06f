export * from "./causes";
export * from "./codes";
export * from "./likelihoods";
export * from "./next";
export * from "./weigh";
