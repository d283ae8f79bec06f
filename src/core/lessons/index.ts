export * from "./of-job";
export * from "./what-we-know";
