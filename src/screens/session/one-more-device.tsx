"use client";

import { useEffect, useState } from "react";
import { QrCode } from "@/ui/qr-code";
import { sendJson } from "./api";

interface Code {
  readonly code: string;
  readonly seconds: number;
  /** The plain page for devices that do not trust the shop yet, and what its authority is known by; only where it is on HTTPS */
  readonly plain?: string;
  readonly fingerprint?: string;
}

/** How one more device comes in: an address to open, or to read with its camera, and a code that counts once. */
export function OneMoreDevice({ path = "/" }: { path?: string }) {
  const [code, setCode] = useState<Code | null>();
  useEffect(() => {
    sendJson<Code | null>("POST", "session/code").then(setCode, () => setCode(null));
  }, []);
  if (code === undefined) return <p className="text-muted">Asking for a code…</p>;
  if (code === null)
    return (
      <>
        <p>On this machine, in another window:</p>
        <p className="mb-3 font-mono text-lg break-all">{`${window.location.origin}${path}`}</p>
        <p className="text-muted">
          This shop is open to its own machine only. To let a tablet in, start the app with --host and a shop passphrase.
        </p>
      </>
    );
  const origin = code.plain ?? window.location.origin;
  // On plain HTTP whoever listens would read the code along: there it is typed, on the page that the other leads to.
  const carried = origin.startsWith("https:");
  const door = `${origin}/unlock?${new URLSearchParams({ to: path, ...(carried ? { code: code.code } : {}) } as Record<string, string>)}`;
  return (
    <div className="grid items-start gap-x-6 gap-y-3 sm:grid-cols-[12rem_1fr]">
      <QrCode text={door} label={carried ? `Opens ${origin} with the code` : `Opens ${origin}`} />
      <div className="min-w-0">
        <p>Read this with the other device's camera, or open</p>
        <p className="mb-2 font-mono text-lg break-all">{`${origin}${path}`}</p>
        <p>and give the shop passphrase, or this code, which counts once within {code.seconds / 60} minutes:</p>
        <p className="my-2 font-mono text-4xl font-bold tracking-widest">{code.code.replace(/(...)/, "$1 ")}</p>
        {code.fingerprint && (
          <p className="text-sm text-muted">
            The page says how to trust this shop. Its fingerprint there must be{" "}
            <span className="font-mono break-all">{code.fingerprint}</span>
          </p>
        )}
      </div>
    </div>
  );
}
