// The shop's own certificate authority, and the certificate that its machine shows: kept in the data folder, renewed by itself.
import { generateKeyPairSync, X509Certificate } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { hostname, networkInterfaces } from "node:os";
import { join } from "node:path";
import forge from "node-forge";

const DAY = 24 * 3600_000;
/** The authority is trusted once, for years; what it signs is short-lived, as browsers ask, and renewed before it ends. */
const AUTHORITY_LASTS = 3650 * DAY;
const LEAF_LASTS = 397 * DAY;
const RENEWED_BEFORE = 30 * DAY;

/** Of a network that ends at the shop's own door. */
const isPrivate = (ip) => /^(127|10|192\.168|169\.254)\.|^172\.(1[6-9]|2\d|3[01])\.|^::1$|^f[cd]/.test(ip);
/** Addresses that an authority must name one by one to speak for. */
const others = ({ ips }) => ips.filter((ip) => !isPrivate(ip));

/** What this machine may be called on the shop's network: its names and addresses. */
export function addressesHere() {
  const own = Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    .map((one) => one.address)
    .filter((ip) => ip.includes(".") || isPrivate(ip));
  const name = hostname().toLowerCase();
  return {
    names: [...new Set(["localhost", name, `${name.split(".")[0]}.local`])],
    ips: [...new Set(["127.0.0.1", "::1", ...own])],
  };
}

/** An address on the shop's network that other devices can open; the loopback's where there is none. */
export const shownAddress = () => {
  const { ips } = addressesHere();
  return ips.find((ip) => ip.includes(".") && !ip.startsWith("127.")) ?? "127.0.0.1";
};

function newKeys() {
  const { privateKey, publicKey } = generateKeyPairSync("rsa", {
    modulusLength: 2048,
    privateKeyEncoding: { type: "pkcs1", format: "pem" },
    publicKeyEncoding: { type: "spki", format: "pem" },
  });
  return { pem: privateKey, private: forge.pki.privateKeyFromPem(privateKey), public: forge.pki.publicKeyFromPem(publicKey) };
}

function certificate({ subject, issuer = subject, key, signedWith, lasts, now, extensions }) {
  const cert = forge.pki.createCertificate();
  cert.publicKey = key;
  // A serial number is positive: its first bit is 0 (RFC 5280, 4.1.2.2).
  cert.serialNumber = `01${forge.util.bytesToHex(forge.random.getBytesSync(15))}`;
  cert.validity.notBefore = new Date(now - DAY);
  cert.validity.notAfter = new Date(now + lasts);
  const named = (value) => [{ name: "commonName", value }];
  cert.setSubject(named(subject));
  cert.setIssuer(named(issuer));
  cert.setExtensions(extensions);
  cert.sign(signedWith, forge.md.sha256.create());
  return forge.pki.certificateToPem(cert);
}

/** Bytes of an address with its mask, as name constraints hold them (RFC 5280, 4.2.1.10). */
const NETWORKS = [
  [
    [127, 0, 0, 0],
    [255, 0, 0, 0],
  ],
  [
    [10, 0, 0, 0],
    [255, 0, 0, 0],
  ],
  [
    [172, 16, 0, 0],
    [255, 240, 0, 0],
  ],
  [
    [192, 168, 0, 0],
    [255, 255, 0, 0],
  ],
  [
    [169, 254, 0, 0],
    [255, 255, 0, 0],
  ],
];
const sixteen = (...head) => [...head, ...Array(16 - head.length).fill(0)];
const NETWORKS_6 = [
  [[...sixteen().slice(0, 15), 1], Array(16).fill(255)],
  [sixteen(0xfc), sixteen(0xfe)],
];

/** The authority speaks for this machine's names and for addresses of private networks alone: no other site, whoever gets its key. */
function constraints(addresses) {
  const { asn1 } = forge;
  const tagged = (tag, bytes) =>
    asn1.create(asn1.Class.UNIVERSAL, asn1.Type.SEQUENCE, true, [asn1.create(asn1.Class.CONTEXT_SPECIFIC, tag, false, bytes)]);
  const raw = (list) => String.fromCharCode(...list);
  const single = others(addresses).map((ip) => [ip.split(".").map(Number), [255, 255, 255, 255]]);
  const permitted = [
    ...[...addresses.names, "local"].map((name) => tagged(2, name)),
    ...[...NETWORKS, ...NETWORKS_6, ...single].map(([address, mask]) => tagged(7, raw([...address, ...mask]))),
  ];
  const value = asn1.create(asn1.Class.UNIVERSAL, asn1.Type.SEQUENCE, true, [
    asn1.create(asn1.Class.CONTEXT_SPECIFIC, 0, true, permitted),
  ]);
  return { id: "2.5.29.30", critical: true, value: asn1.toDer(value).getBytes() };
}

function newAuthority(addresses, now) {
  const keys = newKeys();
  const cert = certificate({
    subject: `Pelota shop authority ${forge.util.bytesToHex(forge.random.getBytesSync(3))}`,
    key: keys.public,
    signedWith: keys.private,
    lasts: AUTHORITY_LASTS,
    now,
    extensions: [
      { name: "basicConstraints", cA: true, pathLenConstraint: 0, critical: true },
      { name: "keyUsage", keyCertSign: true, cRLSign: true, critical: true },
      // For servers alone: it signs no programs and no mail, whatever a device takes an authority's word for.
      { name: "extKeyUsage", serverAuth: true },
      { name: "subjectKeyIdentifier" },
      constraints(addresses),
    ],
  });
  return { cert, key: keys.pem };
}

function newLeaf(authority, { names, ips }, now) {
  const keys = newKeys();
  const signer = forge.pki.certificateFromPem(authority.cert);
  const cert = certificate({
    subject: names[1] ?? "localhost",
    issuer: signer.subject.getField("CN").value,
    key: keys.public,
    signedWith: forge.pki.privateKeyFromPem(authority.key),
    lasts: LEAF_LASTS,
    now,
    extensions: [
      { name: "basicConstraints", cA: false, critical: true },
      { name: "keyUsage", digitalSignature: true, keyEncipherment: true, critical: true },
      { name: "extKeyUsage", serverAuth: true },
      {
        name: "subjectAltName",
        altNames: [...names.map((value) => ({ type: 2, value })), ...ips.map((ip) => ({ type: 7, ip }))],
      },
    ],
  });
  return { cert, key: keys.pem };
}

/** Whether a certificate still serves: signed by this authority, for all of these addresses, and not about to end. */
function serves(cert, authority, { names, ips }, now) {
  try {
    const [leaf, signer] = [new X509Certificate(cert), new X509Certificate(authority.cert)];
    return (
      leaf.checkIssued(signer) &&
      leaf.verify(signer.publicKey) &&
      Date.parse(leaf.validTo) - now > RENEWED_BEFORE &&
      names.every((name) => leaf.checkHost(name) !== undefined) &&
      ips.every((ip) => leaf.checkIP(ip) !== undefined)
    );
  } catch {
    return false;
  }
}

/**
 * The shop's authority and this machine's certificate, made where they are missing, damaged, about to end or of other addresses.
 * @param folder of the shop's data. @returns PEM each, and the authority's fingerprint, to be compared by eye.
 */
export function shopCertificates(folder, addresses = addressesHere(), now = Date.now()) {
  const here = join(folder, "authority");
  mkdirSync(here, { recursive: true, mode: 0o700 });
  const kept = (name, make, fits) => {
    const [certFile, keyFile] = [join(here, `${name}.crt`), join(here, `${name}.key`)];
    if (existsSync(certFile) && existsSync(keyFile)) {
      const known = { cert: readFileSync(certFile, "utf8"), key: readFileSync(keyFile, "utf8") };
      if (fits(known)) return known;
    }
    const made = make();
    writeFileSync(keyFile, made.key, { mode: 0o600 });
    writeFileSync(certFile, made.cert);
    return made;
  };
  // An authority that may not speak for what this machine is called by now is of no use: devices trust the new one.
  const speaksFor = join(here, "speaks-for.json");
  const needed = [...addresses.names, ...others(addresses)];
  const named = () => (existsSync(speaksFor) ? JSON.parse(readFileSync(speaksFor, "utf8")) : []);
  const authority = kept(
    "authority",
    () => {
      writeFileSync(speaksFor, JSON.stringify(needed));
      return newAuthority(addresses, now);
    },
    ({ cert }) => serves(cert, { cert }, { names: [], ips: [] }, now) && needed.every((one) => named().includes(one)),
  );
  const leaf = kept(
    "machine",
    () => newLeaf(authority, addresses, now),
    ({ cert }) => serves(cert, authority, addresses, now),
  );
  return { authority: authority.cert, ...leaf, fingerprint: new X509Certificate(authority.cert).fingerprint256 };
}
