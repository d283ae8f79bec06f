// What the shop's plain port shows to other devices: how to trust the shop's authority, and the way on to HTTPS. No job passes here.
import { createHash } from "node:crypto";
import QRCode from "qrcode";

const escaped = (text) => text.replace(/[&<>"]/g, (c) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" })[c]);

/**
 * Runs in the device's browser: hands what this origin still holds to the same app at its HTTPS address, which is another
 * store to the browser, and lets go of it once the other side says that it has it.
 */
const CARRY = `
const go = document.getElementById("go");
const said = document.getElementById("said");
const secure = document.body.dataset.secure;
const say = (text) => { said.textContent = text; };
const opened = () => new Promise((done) => {
  const asked = indexedDB.open("pelota");
  asked.onupgradeneeded = () => asked.transaction.abort();
  asked.onerror = () => done(undefined);
  asked.onsuccess = () => done(asked.result);
});
const all = (db, store) => new Promise((done, fail) => {
  if (!db || ![...db.objectStoreNames].includes(store)) return done([]);
  const asked = db.transaction(store).objectStore(store).getAll();
  asked.onsuccess = () => done(asked.result);
  asked.onerror = () => fail(asked.error);
});
const CARRIED = /^pelota\\.(draft|outbox|set-aside)\\./;
(async () => {
  const db = await opened();
  const kept = await all(db, "kept");
  const typed = Object.keys(localStorage).filter((key) => CARRIED.test(key));
  if (kept.length + typed.length === 0) return;
  say(kept.length > 0 ? "Carries over " + kept.length + (kept.length === 1 ? " entry that waits" : " entries that wait") + " here, and what was typed." : "Carries over what was typed here.");
  go.addEventListener("click", (event) => {
    event.preventDefault();
    const there = window.open(secure + "/carry-over", "pelota-carry-over");
    if (!there) { say("The browser held the new page back: allow it, then try again. Nothing is lost."); return; }
    const load = { kept, typed: Object.fromEntries(typed.map((key) => [key, localStorage.getItem(key)])) };
    let over = false;
    let heard = false;
    const offer = setInterval(() => there.postMessage({ pelota: "carry-over", load }, secure), 500);
    setTimeout(() => { if (!heard) say("The new page does not answer yet. Trust the authority, let this device in there, and open this page once more: nothing is lost."); }, 15000);
    window.addEventListener("message", async ({ origin, data }) => {
      if (over || origin !== secure) return;
      if (data?.pelota === "heard" && !heard) {
        heard = true;
        say("Look through it on the new page, and take it over there. Leave this one open.");
      }
      if (data?.pelota !== "carried-over") return;
      over = true;
      clearInterval(offer);
      if (db && kept.length > 0) {
        const tx = db.transaction("kept", "readwrite");
        for (const { id } of kept) if (data.ids.includes(id)) tx.objectStore("kept").delete(id);
        await new Promise((done) => { tx.oncomplete = done; });
      }
      for (const key of data.keys) localStorage.removeItem(key);
      say("Carried over. Go on in the new page; this one can be closed.");
    });
  });
})();
`;

const STYLE = `
body{margin:0;font:18px/1.5 system-ui,sans-serif;background:#0d1110;color:#e7efec}
main{max-width:40rem;margin:0 auto;padding:1.5rem}
h1{font-size:1.6rem}ol{padding-left:1.4rem}li{margin:.6rem 0}
a.key{display:inline-flex;align-items:center;min-height:3rem;padding:0 1rem;border-radius:.4rem;border:1px solid #7c8f88;color:inherit;text-decoration:none}
a.go{background:#c8f53a;color:#10150a;font-weight:700;border:0}
code{font-family:ui-monospace,monospace;overflow-wrap:anywhere}
svg{width:12rem;height:12rem;background:#fff;border-radius:.4rem}
`;

const hashOf = (text) => `'sha256-${createHash("sha256").update(text).digest("base64")}'`;
const POLICY = `default-src 'none'; script-src ${hashOf(CARRY)}; style-src ${hashOf(STYLE)}; img-src data:; base-uri 'none'; form-action 'none'; frame-ancestors 'none'`;

/** @param secure the app's HTTPS address; @param onwards where to there, with what stood in the address. */
async function page({ secure, onwards, fingerprint, here }) {
  const qr = await QRCode.toString(here, { type: "svg", margin: 2 });
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">
<title>Pelota: to this shop's secure page</title><style>${STYLE}</style></head>
<body data-secure="${escaped(secure)}"><main>
<h1>To this shop's secure page</h1>
<p>What goes over the shop's network is encrypted. Once on each device, tell it to trust this shop's own authority:</p>
<ol>
<li><a class="key" href="/authority.crt" download>Get the shop's certificate</a></li>
<li>Open it. On a phone or tablet: install it as a certificate authority, in the settings under security or profiles, and switch it on there. On a
computer: put it among the trusted root authorities of the system or the browser.</li>
<li>Its fingerprint (SHA-256) must be the one that the shop's own machine shows:<br><code>${escaped(fingerprint)}</code></li>
<li><a class="key go" id="go" href="${escaped(onwards)}">Go on to the secure page</a><p id="said" role="status"></p></li>
</ol>
<p>The authority speaks for this shop's machine and for private networks alone; it cannot stand for any other site.</p>
<p>One more device: read this with its camera.</p>
${qr}
</main><script>${CARRY}</script></body></html>`;
}

/**
 * Answers on the plain port for other devices: the page, the certificate, nothing else.
 * @param secureAt the HTTPS address of the app by the name that the request came to.
 */
export async function answerPlain(request, response, { secureAt, authority, fingerprint }) {
  const asked = request.headers.host ?? "";
  // What is no name of a machine stands on no page, and in no code.
  const host = /^(\[[0-9a-f:.]+\]|[\w.-]{1,253})(:\d{1,5})?$/i.test(asked) ? asked : "";
  const send = (status, type, body, more = {}) => {
    response.writeHead(status, {
      "content-type": type,
      "x-content-type-options": "nosniff",
      "cache-control": "no-store",
      ...more,
    });
    response.end(body);
  };
  if (request.method !== "GET" && request.method !== "HEAD") {
    const message = "This shop is on HTTPS now: open its page once more, it carries over what waits here";
    return send(426, "application/json", JSON.stringify({ error: { message } }), { upgrade: "TLS/1.2, HTTP/1.1" });
  }
  if (host === "" || !URL.canParse(request.url, "http://here"))
    return send(400, "text/plain; charset=utf-8", "This address is broken: open the one that the shop's machine shows.");
  const url = new URL(request.url, "http://here");
  if (url.pathname === "/authority.crt")
    return send(200, "application/x-x509-ca-cert", authority, {
      "content-disposition": 'attachment; filename="pelota-shop-authority.crt"',
    });
  if (url.pathname.startsWith("/api/") || url.pathname.startsWith("/_next/"))
    return send(
      404,
      "application/json",
      JSON.stringify({ error: { message: "Only on HTTPS: open this shop's page once more" } }),
    );
  const secure = secureAt(host);
  // What leads to a page leads to it over there; a code that was read off a screen goes along.
  const onwards = `${secure}${url.pathname}${url.search}`;
  const html = await page({ secure, onwards, fingerprint, here: `http://${host}/` });
  return send(200, "text/html; charset=utf-8", html, { "content-security-policy": POLICY, "referrer-policy": "no-referrer" });
}
