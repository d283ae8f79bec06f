import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

export default defineConfig({
  resolve: { alias: { "@": fileURLToPath(new URL("./src", import.meta.url)) } },
  test: {
    include: ["src/**/*.test.{ts,tsx}", "demo/**/*.test.ts", "bench/**/*.test.ts"],
    testTimeout: 120000,
    // Files of one worker share what they import: each cleans up what it changes, and half of the time was importing.
    isolate: false,
  },
});
