export * from "./acts";
export * from "./answers";
export * from "./first-start";
export * from "./pin";
export * from "./roles";
export * from "./security-log";
export * from "./sign-in";
