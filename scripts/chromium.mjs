import { existsSync } from "node:fs";

/** Debian's Chromium without its windows, which tests need least of; with them, where it is all there is. */
export const HEADLESS_SHELL = "/usr/bin/chromium-headless-shell";
const WHOLE = "/usr/bin/chromium";

/** The browser that tests and pictures are made with; undefined where none is installed. */
export const chromiumPath = () => [HEADLESS_SHELL, WHOLE].find((path) => existsSync(path));
