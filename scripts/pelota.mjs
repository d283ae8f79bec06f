// The command line: `npm run pelota -- <command>`, or `node scripts/pelota.mjs <command>` from any folder.
import { bundle } from "./bundle.mjs";

await import(bundle);
