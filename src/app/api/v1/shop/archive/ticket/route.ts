import * as yup from "yup";
import { strictObject, validate } from "@/core/input";
import { doorFor, jsonBody } from "@/server/http";
import { loggedOf } from "@/server/security-log";
import { giveTicket } from "@/server/tickets";

const schema = strictObject({ customers: yup.boolean().required("Say whether customers go with it") });

export const POST = (request: Request) =>
  doorFor("move-shop", request, async (who) => {
    const wanted = validate<{ customers: boolean }>(schema, await jsonBody(request));
    loggedOf(request, "shop-exported", who, wanted.customers ? "with customers" : "without customers");
    return { ticket: giveTicket(wanted) };
  });
