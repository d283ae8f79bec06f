import { X509Certificate } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { createServer, request } from "node:https";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { addressesHere, shopCertificates } from "../../scripts/authority.mjs";

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "pelota-authority-"));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const HERE = { names: ["localhost", "bay", "bay.local"], ips: ["127.0.0.1", "::1", "192.168.7.7"] };
const DAY = 24 * 3600_000;

/** Verdict of a client that trusts the authority on a server with this certificate, asked by a name. */
async function says(certificates: { cert: string; key: string; authority: string }, servername: string): Promise<string> {
  const server = createServer({ key: certificates.key, cert: certificates.cert }, (_, response) => response.end("ok"));
  await new Promise<void>((done) => server.listen(0, "127.0.0.1", done));
  const { port } = server.address() as AddressInfo;
  const said = await new Promise<string>((done) => {
    const asked = request(
      { host: "127.0.0.1", port, servername, ca: certificates.authority, headers: { host: servername } },
      (response) => {
        response.resume();
        done(String(response.statusCode));
      },
    );
    asked.on("error", (error) => done(`${(error as NodeJS.ErrnoException).code} ${error.message}`));
    asked.end();
  });
  server.close();
  return said;
}

describe("the shop's own authority", () => {
  it("is made once, kept from others on the machine, and trusted by whoever trusts it alone", async () => {
    const made = shopCertificates(folder, HERE);
    expect(shopCertificates(folder, HERE)).toEqual(made);
    for (const key of ["authority.key", "machine.key"]) expect(statSync(join(folder, "authority", key)).mode & 0o077).toBe(0);
    expect(await says(made, "localhost")).toBe("200");
    expect(
      await says({ ...made, authority: shopCertificates(mkdtempSync(join(folder, "x")), HERE).authority }, "localhost"),
    ).toMatch(/SIGNATURE|UNABLE|SELF_SIGNED/);
    expect(new X509Certificate(made.authority).fingerprint256).toBe(made.fingerprint);
  });

  it("signs anew where addresses change or the certificate is about to end, and stays the one that devices trust", () => {
    const made = shopCertificates(folder, HERE);
    const moved = shopCertificates(folder, { ...HERE, ips: [...HERE.ips, "10.1.2.3"] });
    expect(moved.authority).toBe(made.authority);
    expect(moved.cert).not.toBe(made.cert);
    expect(new X509Certificate(moved.cert).checkIP("10.1.2.3")).toBe("10.1.2.3");
    const later = shopCertificates(folder, HERE, Date.now() + 380 * DAY);
    expect(later.authority).toBe(made.authority);
    expect(later.cert).not.toBe(moved.cert);
    expect(Date.parse(new X509Certificate(made.cert).validTo) - Date.now()).toBeLessThan(398 * DAY);
  });

  it("cannot stand for any other site, whoever gets hold of its key", async () => {
    const made = shopCertificates(folder, HERE);
    // Its own code is made to sign for another name, as a thief of the folder would.
    writeFileSync(join(folder, "authority", "speaks-for.json"), JSON.stringify(["localhost", "bank.example"]));
    const stolen = shopCertificates(folder, { names: ["localhost", "bank.example"], ips: ["127.0.0.1"] });
    expect(stolen.authority).toBe(made.authority);
    expect(new X509Certificate(stolen.cert).checkHost("bank.example")).toBe("bank.example");
    expect(await says(stolen, "bank.example")).toMatch(/PERMITTED_VIOLATION|permitted subtree/i);
  });

  it("is made anew where its files are damaged, or where it may not speak for what the machine is called by now", () => {
    const made = shopCertificates(folder, HERE);
    writeFileSync(join(folder, "authority", "machine.crt"), "garbage");
    expect(shopCertificates(folder, HERE).authority).toBe(made.authority);
    const renamed = shopCertificates(folder, { ...HERE, names: ["localhost", "desk", "desk.local"] });
    expect(renamed.authority).not.toBe(made.authority);
    expect(new X509Certificate(renamed.cert).checkHost("desk")).toBe("desk");
    writeFileSync(
      join(folder, "authority", "authority.crt"),
      readFileSync(join(folder, "authority", "authority.crt"), "utf8").slice(0, 300),
    );
    expect(shopCertificates(folder, HERE).fingerprint).not.toBe(renamed.fingerprint);
  });

  it("signs for servers alone", () => {
    const SERVER = "1.3.6.1.5.5.7.3.1";
    const { authority, cert } = shopCertificates(folder, HERE);
    for (const one of [authority, cert]) expect(new X509Certificate(one).keyUsage).toEqual([SERVER]);
  });

  it("names this machine as it is called here", () => {
    const { names, ips } = addressesHere();
    expect(names).toContain("localhost");
    expect(ips).toEqual(expect.arrayContaining(["127.0.0.1", "::1"]));
    expect(ips.some((ip: string) => ip.startsWith("fe80:"))).toBe(false);
  });
});
