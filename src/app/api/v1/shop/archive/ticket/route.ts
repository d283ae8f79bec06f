import * as yup from "yup";
import { strictObject, validate } from "@/core/input";
import { doorFor, jsonBody } from "@/server/http";
import { giveTicket } from "@/server/tickets";

const schema = strictObject({ customers: yup.boolean().required("Say whether customers go with it") });

export const POST = (request: Request) =>
  doorFor("move-shop", request, async () => ({
    ticket: giveTicket(validate<{ customers: boolean }>(schema, await jsonBody(request))),
  }));
