import { BadInput } from "@/core/input";
import { answer } from "@/server/http";
import { LARGEST_PICTURE, storePicture } from "@/server/pictures";

/** Takes a picture's bytes as the request's body; its name comes in the query. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => {
    if (Number(request.headers.get("content-length") ?? 0) > LARGEST_PICTURE) {
      throw new BadInput("The picture is larger than 15 MB: take it at a lower resolution");
    }
    const bytes = new Uint8Array(await request.arrayBuffer());
    if (bytes.length === 0) throw new BadInput("The picture is empty");
    return storePicture((await params).id, new URL(request.url).searchParams.get("name") ?? "picture", bytes);
  });
