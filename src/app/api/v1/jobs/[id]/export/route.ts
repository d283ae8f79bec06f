import { beside } from "@/server/beside";
import { door } from "@/server/http";
import { requireJob } from "@/server/jobs";

export const dynamic = "force-dynamic";

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  door(request, async () => {
    const { id } = await params;
    requireJob(id);
    return new Response(await beside("exported", id), {
      headers: {
        "content-type": "application/json",
        "content-disposition": `attachment; filename="job-${id}.pelota.json"`,
      },
    });
  });
