// Serves one shop after another in one process, for tests that need a shop of their own: the app is loaded once for all of them.
// What it does with a shop is what `scripts/start.mjs` does; only the process outlives it.
import { openData } from "../scripts/data-folder.mjs";
import { gateOf, NO_GATE } from "../scripts/gate.mjs";
import { openShop, prepareApp } from "../scripts/serve.mjs";

const LOOPBACK = "127.0.0.1";
let handle;
let open;

/** What the app holds of a shop beside its data lies on globalThis under these names. */
const forget = () => {
  for (const name of Object.keys(globalThis)) if (name.startsWith("pelota")) delete globalThis[name];
};

async function begin({ folder, port, host = LOOPBACK, securePort, passphrase }) {
  // A test that broke off may have left one open.
  end();
  const data = openData(folder);
  Object.assign(process.env, {
    NEXT_TELEMETRY_DISABLED: "1",
    PELOTA_DATA: folder,
    ...(passphrase === undefined ? NO_GATE : gateOf(folder, passphrase)),
  });
  delete process.env.PELOTA_NETWORK;
  handle ??= await prepareApp(LOOPBACK, port);
  const { shutDoors, shut } = await openShop({ host, port, securePort, folder, handle });
  open = () => {
    shutDoors();
    shut();
    data.release();
    forget();
  };
}

function end() {
  open?.();
  open = undefined;
}

process.on("message", async ({ id, ask, shop }) => {
  try {
    if (ask === "begin") await begin(shop);
    else end();
    process.send({ id });
  } catch (error) {
    process.send({ id, failed: String(error?.stack ?? error) });
  }
});
// Whoever tried it is gone.
process.on("disconnect", () => process.exit(0));
