import { type BrowserContext, type BrowserContextOptions, test as base, type Page } from "@playwright/test";
import { ShopHost } from "./server";

export { expect } from "@playwright/test";

/** Of a test that winds its page's clock itself: nothing takes a clock out of a context again, so those have contexts of their own. */
export const CLOCKED = { tag: "@clock" };

/** Contexts with a clock in them, which can be set anew; and those whose clock was stopped, which cannot. */
const clocked = new WeakSet<BrowserContext>();
const stopped = new WeakSet<BrowserContext>();

/** Puts a clock into the page that a test winds itself, or sets the one of an earlier test. */
export async function installClock(page: Page, time: Date = new Date()): Promise<void> {
  clocked.add(page.context());
  await page.clock.install({ time });
}

/** From here on, `ahead` ms on, time passes only as the test winds it, however slow the machine is. */
export async function standStill(page: Page, ahead = 1000): Promise<void> {
  stopped.add(page.context());
  await page.clock.pauseAt((await page.evaluate(() => Date.now())) + ahead);
}

/** What a device keeps of a shop without a service worker. Emptying the caches of one, too, would empty the browser's own of the app. */
const STORED = "local_storage,indexeddb";

const keyOf = (options: BrowserContextOptions, clock: boolean) => JSON.stringify([options, clock]);

/**
 * The devices of a worker. A fresh browser context fetches and compiles the whole app anew, which is most of what a short test
 * costs; here a context is emptied after its test and given to the next one, and only the app itself stays in its cache.
 */
class Devices {
  readonly #idle = new Map<string, BrowserContext[]>();
  readonly #visited = new WeakMap<BrowserContext, Set<string>>();

  /** A device that was nowhere yet; `make` opens one where none is idle. */
  async take(options: BrowserContextOptions, clock: boolean, make: () => Promise<BrowserContext>): Promise<BrowserContext> {
    const idle = this.#idle.get(keyOf(options, clock))?.pop();
    if (idle) return idle;
    const context = await make();
    const visited = new Set<string>();
    this.#visited.set(context, visited);
    context.on("request", (request) => {
      if (request.isNavigationRequest()) visited.add(new URL(request.url()).origin);
    });
    return context;
  }

  /** Empties a device and keeps it for the next test, or closes it. */
  async giveBack(options: BrowserContextOptions, context: BrowserContext): Promise<void> {
    if (stopped.has(context)) return context.close();
    for (const page of context.pages()) await page.close();
    await context.unrouteAll({ behavior: "ignoreErrors" });
    await context.setOffline(false);
    await context.clearCookies();
    await context.clearPermissions();
    const page = await context.newPage();
    const storage = await context.newCDPSession(page);
    for (const origin of this.#visited.get(context) ?? [])
      await storage.send("Storage.clearDataForOrigin", { origin, storageTypes: STORED });
    await page.close();
    const key = keyOf(options, clocked.has(context));
    this.#idle.set(key, [...(this.#idle.get(key) ?? []), context]);
  }
}

interface InTest {
  /** Keeps what the test's own shop said, for whoever asks why the test failed */
  readonly shopLog: undefined;
  /** One more device, with nothing on it; it is the test's until it ends. */
  readonly newDevice: (options?: BrowserContextOptions) => Promise<BrowserContext>;
}

interface InWorker {
  readonly devices: Devices;
  /** Shops of a test's own, one at a time */
  readonly shops: ShopHost;
}

/** Tests whose devices outlive them, emptied, and whose shops are opened in one process. */
export const test = base.extend<InTest, InWorker>({
  shops: [
    // biome-ignore lint/correctness/noEmptyPattern: the fixture asks for no other
    async ({}, use, { parallelIndex }) => {
      const host = new ShopHost(parallelIndex);
      await use(host);
      host.close();
    },
    { scope: "worker" },
  ],
  devices: [
    // biome-ignore lint/correctness/noEmptyPattern: the fixture asks for no other
    async ({}, use) => {
      await use(new Devices());
    },
    { scope: "worker" },
  ],
  shopLog: [
    async ({ shops }, use, info) => {
      const before = shops.log.length;
      await use(undefined);
      const said = shops.log.slice(before).join("");
      if (info.status !== info.expectedStatus && said !== "") await info.attach("shop", { body: said });
    },
    { auto: true },
  ],
  newDevice: async ({ browser, devices }, use, { tags }) => {
    const taken: [BrowserContextOptions, BrowserContext][] = [];
    await use(async (options = {}) => {
      const context = await devices.take(options, tags.includes(CLOCKED.tag), () => browser.newContext(options));
      taken.push([options, context]);
      return context;
    });
    for (const [options, context] of taken) await devices.giveBack(options, context);
  },
  context: async ({ newDevice }, use) => {
    await use(await newDevice());
  },
});
