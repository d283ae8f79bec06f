export * from "./experience";
export * from "./families";
export * from "./likelihoods";
export * from "./next";
export * from "./weigh";
