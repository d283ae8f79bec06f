import { type CanFrame, IsoTpReceiver, IsoTpSender, type Received } from "../devices/iso-tp";
import { codesOfObd } from "../journal";
import type { CodeRead } from "../journal/entries";
import { readObd } from "../scan-log";
import type { ObdEcu } from "./obd-ecu";

type Bytes = readonly number[];

/** A message over the bus: frame by frame, with the flow control of who takes it. Throws RangeError where it does not come over whole. */
function carry(message: Bytes, to: IsoTpReceiver): Bytes {
  const sender = new IsoTpSender(message);
  const take = (frame: CanFrame): Received => to.take(frame);
  let last = take(sender.begin());
  while ("reply" in last && last.reply) for (const frame of sender.go(last.reply)) last = take(frame);
  if (!("message" in last) || !last.message) throw new RangeError("The answer did not come over whole");
  return last.message;
}

/** A request to an ECU and its answer, both over ISO 15765-2. */
export const ask = (ecu: ObdEcu, request: Bytes): Bytes =>
  carry(ecu.answer(carry(request, new IsoTpReceiver())), new IsoTpReceiver());

const hex = (bytes: Bytes) => bytes.map((b) => b.toString(16).toUpperCase().padStart(2, "0")).join(" ");
/** PIDs of a freeze frame that a tool asks for. */
const FROZEN = [0x02, 0x04, 0x05, 0x06, 0x07, 0x0c];

/**
 * Everything a generic tool reads out of an ECU: codes stored, pending and permanent, with the frame that the first one froze, decoded
 * from the bytes that came over the bus. A permanent code that is stored or pending as well is said once.
 */
export function scanCodes(ecu: ObdEcu): CodeRead[] {
  const lines = [[0x03], [0x07], [0x0a]].map((request) => hex(ask(ecu, request)));
  const frozen = ask(ecu, [0x02, ...FROZEN.flatMap((pid) => [pid, 0])]);
  return codesOfObd(readObd([...lines, hex(frozen)].join("\n")));
}
