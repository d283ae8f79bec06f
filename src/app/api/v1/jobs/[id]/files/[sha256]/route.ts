import { createReadStream } from "node:fs";
import { Readable } from "node:stream";
import { fileOf } from "@/server/files";
import { door } from "@/server/http";

export const dynamic = "force-dynamic";

export const GET = (request: Request, { params }: { params: Promise<{ id: string; sha256: string }> }) =>
  door(request, async () => {
    const { id, sha256 } = await params;
    // A log may be long: it is handed on as it is read.
    const bytes = Readable.toWeb(createReadStream(fileOf(id, sha256))) as ReadableStream<Uint8Array>;
    return new Response(bytes, {
      headers: {
        "content-type": "application/octet-stream",
        "content-disposition": "attachment",
        "x-content-type-options": "nosniff",
      },
    });
  });
