export * from "./experience";
export * from "./families";
export * from "./likelihoods";
export * from "./next";
export * from "./priors";
export { CODES_STAY_AWAY, COMPLAINT_SEEN, triedNot } from "./tried";
export * from "./weigh";
