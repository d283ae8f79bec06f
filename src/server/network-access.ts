import { DEVICE_OUT } from "@/core/people";
import { deviceOf } from "./devices";

const LOOPBACK = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;

/** Whether a request's origin is this very host; what is no address is none of ours. */
const isOurs = (origin: string, host: string) => URL.canParse(origin) && new URL(origin).host === host;

export interface TurnedAway {
  readonly status: 401 | 403;
  readonly message: string;
}

/**
 * Who may come in. Without a shop passphrase only this machine; with one, only a device that was let in and not put out
 * since. Writes must come from our own pages. Undefined lets in; `open` doors ask for no device.
 */
export function turnedAway({ headers, method }: Pick<Request, "headers" | "method">, open = false): TurnedAway | undefined {
  const host = headers.get("host") ?? "";
  const gate = process.env.PELOTA_GATE;
  if (!gate && !LOOPBACK.test(host)) {
    return {
      status: 403,
      message: "This shop is open to its own machine only. Start it with --host to ask for a passphrase.",
    };
  }
  const origin = headers.get("origin");
  if (method !== "GET" && method !== "HEAD" && origin !== null && !isOurs(origin, host))
    return { status: 403, message: "Requests from other sites are not taken." };
  if (!gate || open) return undefined;
  const device = deviceOf(headers);
  if (device && !device.out) return undefined;
  return { status: 401, message: device ? DEVICE_OUT : "Give the shop passphrase first" };
}
