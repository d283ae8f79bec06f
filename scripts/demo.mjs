// Installs, builds, fills the demo database and starts: http://127.0.0.1:4310
import { install, must } from "./run.mjs";

install();
must("npx", ["next", "build"]);
must("node", ["scripts/bundle.mjs"]);
must("npx", ["tsx", "demo/fill.ts"]);
must("node", ["scripts/start.mjs", ...process.argv.slice(2)]);
