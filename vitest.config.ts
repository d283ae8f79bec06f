import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

const shared = {
  resolve: { alias: { "@": fileURLToPath(new URL("./src", import.meta.url)) } },
};

export default defineConfig({
  ...shared,
  test: {
    testTimeout: 120000,
    // What a test that passes has to say is nobody's business.
    silent: "passed-only",
    // All cores: what leaves one free is twice as slow on two.
    maxWorkers: "100%",
    projects: [
      {
        ...shared,
        test: {
          name: "core",
          include: ["src/**/*.test.ts", "demo/**/*.test.ts", "bench/**/*.test.ts"],
          testTimeout: 120000,
          // Files of one worker share what they import: each cleans up what it changes, and half of the time was importing.
          isolate: false,
        },
      },
      {
        ...shared,
        test: {
          name: "screens",
          include: ["src/**/*.test.tsx"],
          testTimeout: 60000,
          isolate: false,
          setupFiles: ["src/screens/page.fixture.ts", "src/screens/dom.fixture.ts"],
        },
      },
    ],
    coverage: {
      include: ["src/**/*.{ts,tsx}"],
      exclude: ["src/**/*.{test,fixture}.{ts,tsx}"],
      reporter: ["text-summary"],
      // What the tests reach without a browser; it may grow.
      thresholds: { branches: 71 },
    },
  },
});
