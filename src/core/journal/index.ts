export * from "./canonical";
export * from "./entries";
export * from "./fold";
export * from "./gates";
export * from "./handover";
export * from "./job-file";
export * from "./readings-csv";
export * from "./state";
