import { door } from "@/server/http";
import { requireJob } from "@/server/jobs";
import { inWorker } from "@/server/worker";

export const dynamic = "force-dynamic";

/** Experience of this shop of a job's engine from its own proved jobs; null where it has none. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  door(request, async () => {
    const { id } = await params;
    requireJob(id);
    return (await inWorker("engine", id)) ?? null;
  });
