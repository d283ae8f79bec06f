import type { Held } from "@/core/journal";
import { allow } from "@/server/allowance";
import { deviceIdOf } from "@/server/devices";
import { takeEntries } from "@/server/entries-door";
import { door, jsonBody } from "@/server/http";
import { answerBehind, readEntries } from "@/server/jobs";

export const dynamic = "force-dynamic";
type Context = { params: Promise<{ id: string }> };

const number = (text: string) => Math.max(0, Number(text) || 0);
const asked = (request: Request, name: string) => new URL(request.url).searchParams.get(name);

/** How far a device says its journal is complete; undefined where it does not say. */
function heldBy(request: Request): Held | undefined {
  const behind = asked(request, "behind");
  return behind === null ? undefined : { behind: number(behind), last: asked(request, "last") ?? "" };
}

/**
 * `behind`, and `last`, the entry that stands there: with the `seq` through which the answer is complete. Devices that know
 * only `after` get a bare list.
 */
export const GET = (request: Request, { params }: Context) =>
  door(request, async () => {
    const { id } = await params;
    const held = heldBy(request);
    return held ? answerBehind(id, held) : readEntries(id, number(asked(request, "after") ?? ""));
  });

/** `behind`: what was posted and all that the device had missed. Devices that do not say it get what they posted. */
export const POST = (request: Request, { params }: Context) =>
  door(request, async () => {
    const { id } = await params;
    const sent = await jsonBody(request);
    allow(deviceIdOf(request.headers), Array.isArray(sent) ? sent.length : 1);
    const posted = await takeEntries(id, sent);
    const held = heldBy(request);
    return held ? answerBehind(id, held, posted) : posted;
  });
