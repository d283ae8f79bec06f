import { mkdtempSync, readdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { db } from "@/server/db/open";
import { enrol, listDevices, putOut } from "@/server/devices";

const HERE = import.meta.dirname;
const METHODS = ["GET", "POST", "PUT", "DELETE", "PATCH"];
type Door = (request: Request, context: { params: Promise<Record<string, string>> }) => Promise<Response>;

/** Every door there is, found by itself: one that is added tomorrow is asked too. */
const doors = (
  await Promise.all(
    readdirSync(HERE, { recursive: true, encoding: "utf8" })
      .filter((path) => path.endsWith("route.ts"))
      .map(async (path) => {
        const route = (await import(join(HERE, path))) as Record<string, Door>;
        return METHODS.flatMap((method) => (route[method] ? [[path, method, route[method]] as const] : []));
      }),
  )
).flat();

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "pelota-gate-"));
  vi.stubEnv("PELOTA_DATA", folder);
});
afterAll(() => {
  db().$client.close();
  vi.unstubAllEnvs();
  rmSync(folder, { recursive: true, force: true });
});

const ask = async (door: Door, method: string, headers: Record<string, string>) => {
  const gone = new AbortController();
  const body = method === "GET" || method === "DELETE" ? {} : { body: "{}" };
  const request = new Request("http://bay.example/api", { method, headers, signal: gone.signal, ...body });
  const { status } = await door(request, { params: Promise.resolve({ id: "none", sha256: "none", signature: "none" }) });
  gone.abort();
  return status;
};

describe("every door of the app", () => {
  it("is known here", () => expect(doors.length).toBeGreaterThan(20));

  it.each(doors)(
    "%s %s is shut to other machines, to other sites, and to devices that were not let in, or put out",
    async (path, method, door) => {
      expect(await ask(door, method, { host: "bay.example" })).toBe(403);
      vi.stubEnv("PELOTA_GATE", "abc");
      const cookie = `pelota_device=${enrol("Tablet 1")}`;
      const session = path === join("v1", "session", "route.ts");
      const notIn = ["", "pelota_device=", `${cookie}0`, "pelota_device=abc", "pelota_gate=abc", "other=abc"];
      if (!session) for (const other of notIn) expect(await ask(door, method, { host: "bay.example", cookie: other })).toBe(401);
      expect(await ask(door, method, { host: "bay.example", cookie })).not.toBe(401);
      if (method !== "GET")
        for (const origin of ["http://elsewhere.example", "null"])
          expect(await ask(door, method, { host: "bay.example", cookie, origin })).toBe(403);
      // A cookie that was stolen opens nothing once its device is out, and nobody's does under another passphrase.
      const { id } = listDevices().at(-1) as { id: string };
      vi.stubEnv("PELOTA_GATE", "another");
      if (!session) expect(await ask(door, method, { host: "bay.example", cookie })).toBe(401);
      vi.stubEnv("PELOTA_GATE", "abc");
      putOut(id);
      if (!session) expect(await ask(door, method, { host: "bay.example", cookie })).toBe(401);
      vi.stubEnv("PELOTA_GATE", "");
    },
  );
});
