import { BadInput } from "@/core/input";
import { LARGEST_LOG } from "@/core/scan-log";
import { storeFile } from "@/server/files";
import { answer } from "@/server/http";

/** Takes the bytes of a file as the request's body; its name comes in the query. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => {
    const announced = Number(request.headers.get("content-length") ?? 0);
    if (announced > LARGEST_LOG) throw new BadInput("The file is larger than 150 MB: export a shorter stretch");
    const bytes = new Uint8Array(await request.arrayBuffer());
    if (bytes.length === 0) throw new BadInput("The file is empty");
    if (bytes.length > LARGEST_LOG) throw new BadInput("The file is larger than 150 MB: export a shorter stretch");
    return storeFile((await params).id, new URL(request.url).searchParams.get("name") ?? "log.csv", bytes);
  });
