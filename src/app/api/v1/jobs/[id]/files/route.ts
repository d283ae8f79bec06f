import { LARGEST_LOG } from "@/core/scan-log";
import { givenName, storeReceived } from "@/server/files";
import { doorFor } from "@/server/http";
import { requireJob } from "@/server/jobs";
import { receiveFile } from "@/server/upload";

/** Takes the bytes of a file as the request's body; its name comes in the query. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  doorFor("record", request, async () => {
    const { id } = await params;
    const name = new URL(request.url).searchParams.get("name") ?? "log.csv";
    requireJob(id);
    return receiveFile(request, LARGEST_LOG, "The file is larger than 150 MB: export a shorter stretch", (path, received) =>
      storeReceived(id, givenName(name), path, received),
    );
  });
