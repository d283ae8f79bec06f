import { readFile } from "@/server/files";
import { door } from "@/server/http";

export const dynamic = "force-dynamic";

export const GET = (request: Request, { params }: { params: Promise<{ id: string; sha256: string }> }) =>
  door(request, async () => {
    const { id, sha256 } = await params;
    const { bytes } = readFile(id, sha256);
    return new Response(new Uint8Array(bytes), {
      headers: {
        "content-type": "application/octet-stream",
        "content-disposition": "attachment",
        "x-content-type-options": "nosniff",
      },
    });
  });
