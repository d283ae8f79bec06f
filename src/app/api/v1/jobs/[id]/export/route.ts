import { door } from "@/server/http";
import { jobNumber, requireJob } from "@/server/jobs";
import { loggedOf } from "@/server/security-log";
import { inWorker } from "@/server/worker";

export const dynamic = "force-dynamic";

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  door(request, async () => {
    const { id } = await params;
    requireJob(id);
    const file = await inWorker("exported", id);
    loggedOf(request, "job-exported", undefined, `Job ${jobNumber(id)}`);
    return new Response(file, {
      headers: {
        "content-type": "application/json",
        "content-disposition": `attachment; filename="job-${id}.pelota.json"`,
      },
    });
  });
