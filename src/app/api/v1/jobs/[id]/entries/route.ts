import { answer, jsonBody } from "@/server/http";
import { answerBehind, appendEntries, readEntries } from "@/server/jobs";

export const dynamic = "force-dynamic";
type Context = { params: Promise<{ id: string }> };

const number = (request: Request, name: string) => {
  const given = new URL(request.url).searchParams.get(name);
  return given === null ? undefined : Math.max(0, Number(given) || 0);
};

/** `behind`: with the `seq` through which the answer is complete. Devices that know only `after` get a bare list. */
export const GET = (request: Request, { params }: Context) =>
  answer(async () => {
    const { id } = await params;
    const behind = number(request, "behind");
    return behind === undefined ? readEntries(id, number(request, "after")) : answerBehind(id, behind);
  });

/** `behind`: what was posted and all that the device had missed. Devices that do not say it get what they posted. */
export const POST = (request: Request, { params }: Context) =>
  answer(async () => {
    const { id } = await params;
    const posted = appendEntries(id, await jsonBody(request));
    const behind = number(request, "behind");
    return behind === undefined ? posted : answerBehind(id, behind, posted);
  });
