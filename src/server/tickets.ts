import { randomBytes } from "node:crypto";
import { now } from "./clock";
import { Forbidden } from "./refusals";

/** Purpose of a ticket. */
interface Ticket {
  readonly for: unknown;
  /** ms */
  readonly until: number;
}
const shared = globalThis as { pelotaTickets?: Map<string, Ticket> };
const tickets = () => {
  shared.pelotaTickets ??= new Map();
  return shared.pelotaTickets;
};

/** A ticket opens its door for so long, ms. */
const HOLDS = 60_000;

/** A ticket for one download: a browser that saves a file shows no proof of who asks, so it is asked before. */
export function giveTicket(what: unknown): string {
  for (const [id, { until }] of tickets()) if (until < now()) tickets().delete(id);
  const id = randomBytes(32).toString("hex");
  tickets().set(id, { for: what, until: now() + HOLDS });
  return id;
}

/** Purpose of a ticket, which is used up by it; it is worth nothing afterwards. Throws Forbidden for none, a used one and one that ran out. */
export function takeTicket<T>(id: string): T {
  const ticket = tickets().get(id);
  tickets().delete(id);
  if (!ticket || ticket.until < now()) throw new Forbidden("This link was good once, for a minute: ask for the file again");
  return ticket.for as T;
}
