export * from "./canonical";
export * from "./entries";
export * from "./fold";
export * from "./gates";
export * from "./job-file";
export * from "./state";
