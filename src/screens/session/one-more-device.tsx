"use client";

import { useEffect, useState } from "react";
import { QrCode } from "@/ui/qr-code";
import { sendJson } from "./api";

/** How one more device comes in: an address to open, or to read with its camera, and a code that counts once. */
export function OneMoreDevice({ path = "/" }: { path?: string }) {
  const [code, setCode] = useState<{ code: string; seconds: number } | null>();
  useEffect(() => {
    sendJson<{ code: string; seconds: number } | null>("POST", "session/code").then(setCode, () => setCode(null));
  }, []);
  if (code === undefined) return <p className="text-muted">Asking for a code…</p>;
  if (code === null)
    return (
      <p className="text-muted">
        This shop is open to its own machine only. To let a tablet in, start the app with --host and a shop passphrase.
      </p>
    );
  const { origin } = window.location;
  const door = `${origin}/unlock?${new URLSearchParams({ code: code.code, to: path })}`;
  return (
    <div className="flex flex-wrap items-center gap-6">
      <QrCode text={door} label={`Opens ${origin} with the code`} />
      <div className="min-w-0">
        <p>Read this with the other device's camera, or open</p>
        <p className="mb-2 font-mono text-lg break-all">{`${origin}${path}`}</p>
        <p>and give the shop passphrase, or this code, which counts once within {code.seconds / 60} minutes:</p>
        <p className="my-2 font-mono text-4xl font-bold tracking-widest">{code.code.replace(/(...)/, "$1 ")}</p>
      </div>
    </div>
  );
}
