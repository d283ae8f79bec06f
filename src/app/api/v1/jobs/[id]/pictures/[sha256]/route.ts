import { door } from "@/server/http";
import { readPicture } from "@/server/pictures";

export const dynamic = "force-dynamic";

export const GET = (request: Request, { params }: { params: Promise<{ id: string; sha256: string }> }) =>
  door(request, async () => {
    const { id, sha256 } = await params;
    const bytes = readPicture(id, sha256, new URL(request.url).searchParams.has("thumbnail"));
    return new Response(new Uint8Array(bytes), {
      headers: {
        // A JPEG begins so (ITU-T T.81, B.1.1.3); everything else that is kept is WebP.
        "content-type": bytes[0] === 0xff && bytes[1] === 0xd8 ? "image/jpeg" : "image/webp",
        "x-content-type-options": "nosniff",
        "content-security-policy": "default-src 'none'",
        // Named by its content: it never changes.
        "cache-control": "private, max-age=31536000, immutable",
      },
    });
  });
