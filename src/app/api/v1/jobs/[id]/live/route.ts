import { validate } from "@/core/input";
import { type LiveRun, liveRunSchema } from "@/core/live";
import { door, jsonBody } from "@/server/http";
import { requireJob } from "@/server/jobs";
import { publish, watch } from "@/server/live";

export const dynamic = "force-dynamic";

/** The run that is on the air, or null. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  door(request, async () => watch((await params).id) ?? null);

/** The first device's word; answers with the calls after the one it names. */
export const PUT = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  door(request, async () => {
    const { id } = await params;
    const run = validate<LiveRun>(liveRunSchema, await jsonBody(request, 65536));
    const after = Number(new URL(request.url).searchParams.get("after") ?? 0);
    requireJob(id);
    return publish(id, run, Number.isFinite(after) ? after : 0);
  });
