import { builtinEnvironments } from "vitest/runtime";

// One page for all files of a worker: making one for each took a tenth of the time, and each test cleans up what it drew.
// It stands before anything is imported that looks for it.
const shared = globalThis as typeof globalThis & { pelotaPage?: unknown };
shared.pelotaPage ??= await builtinEnvironments.jsdom.setup(globalThis, {});
