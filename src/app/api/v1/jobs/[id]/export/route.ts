import { door } from "@/server/http";
import { exportJob } from "@/server/jobs";

export const dynamic = "force-dynamic";

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  door(request, async () => {
    const file = exportJob((await params).id);
    return new Response(JSON.stringify(file, null, 1), {
      headers: {
        "content-type": "application/json",
        "content-disposition": `attachment; filename="job-${file.jobId}.pelota.json"`,
      },
    });
  });
