import * as yup from "yup";
import { strictObject, validate } from "@/core/input";
import { LARGEST_QUEUE_FILE, parseQueueFile } from "@/core/journal";
import { doorFor, jsonBody } from "@/server/http";
import { lookThrough, takeIn } from "@/server/queue";
import { loggedOf } from "@/server/security-log";

const askSchema = strictObject({
  file: yup.string().required("Choose the file that was saved on the device"),
  take: yup.array().of(yup.string().uuid().required()).max(5000).optional(),
});

/** Entries that waited on a device that is out: looked through without `take`, taken in with the ids that a lead has chosen. */
export const POST = (request: Request) =>
  doorFor("manage-devices", request, async (who) => {
    const { file, take } = validate<{ file: string; take?: string[] }>(askSchema, await jsonBody(request, LARGEST_QUEUE_FILE));
    const queue = parseQueueFile(file);
    if (!take) return lookThrough(queue);
    const taken = await takeIn(queue, take);
    const entries = taken.filter((q) => q.state === "here-already").length;
    loggedOf(request, "queue-imported", who, `${entries} of ${taken.length} entries`);
    return taken;
  });
