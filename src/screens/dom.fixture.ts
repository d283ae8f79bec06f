import { cleanup, configure } from "@testing-library/react";
import { afterEach, beforeEach } from "vitest";

// A busy machine is no fault of the page; what hides a key from readers of the screen is tried in a browser, which reckons styles once.
configure({ asyncUtilTimeout: 15_000, defaultHidden: true });

/** Browser APIs that the test's page lacks; each test begins with an empty device. */
beforeEach(() => {
  localStorage.clear();
  Object.assign(globalThis, {
    ResizeObserver: class {
      observe() {}
      unobserve() {}
      disconnect() {}
    },
  });
  Object.assign(window, {
    matchMedia: (query: string) => ({
      matches: query.includes("min-width"),
      media: query,
      addEventListener() {},
      removeEventListener() {},
    }),
  });
  Element.prototype.scrollIntoView ??= () => {};
});
afterEach(cleanup);
