import { doorFor } from "@/server/http";
import { requireJob } from "@/server/jobs";
import { LARGEST_PICTURE, storePicture } from "@/server/pictures";
import { receiveBytes } from "@/server/upload";

/** Takes a picture's bytes as the request's body; its name comes in the query. It goes up before the signed entry that names it, under whoever is in by then. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  doorFor("record", request, async () => {
    const { id } = await params;
    requireJob(id);
    const tooLarge = "The picture is larger than 15 MB: take it at a lower resolution";
    const bytes = await receiveBytes(request, LARGEST_PICTURE, tooLarge);
    return storePicture(id, new URL(request.url).searchParams.get("name") ?? "picture", bytes);
  });
