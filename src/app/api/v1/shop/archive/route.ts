import { renameSync, rmSync } from "node:fs";
import { Readable } from "node:stream";
import { LARGEST_ARCHIVE } from "@/core/journal";
import { takeArchive, writeArchive } from "@/server/archive";
import { nowIso } from "@/server/clock";
import { answerLines, door, doorFor } from "@/server/http";
import { loggedOf } from "@/server/security-log";
import { takeTicket } from "@/server/tickets";
import { receiveFile } from "@/server/upload";

export const dynamic = "force-dynamic";

/** The whole shop, for whoever was given a ticket for it. */
export const GET = (request: Request) =>
  door(request, () => {
    const wanted = takeTicket<{ customers: boolean }>(new URL(request.url).searchParams.get("ticket") ?? "");
    const archive = writeArchive({ ...wanted, signal: request.signal });
    return new Response(Readable.toWeb(archive) as ReadableStream<Uint8Array>, {
      headers: {
        "content-type": "application/zip",
        "content-disposition": `attachment; filename="pelota-shop-${nowIso().slice(0, 10)}.zip"`,
      },
    });
  });

/** Takes an archive in and says how, job by job, one a line. */
export const POST = (request: Request) =>
  doorFor("move-shop", request, (who) =>
    receiveFile(request, LARGEST_ARCHIVE, "The archive is larger than 8 GB", (path) => {
      // It is read while the answer goes out, which is after the upload's own end.
      const archive = `${path}.zip`;
      renameSync(path, archive);
      loggedOf(request, "shop-imported", who, "");
      return answerLines(takeArchive(archive, who?.name), () => rmSync(archive, { force: true }));
    }),
  );
