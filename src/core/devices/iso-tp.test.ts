import * as fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type CanFrame, flowControl, IsoTpReceiver, IsoTpSender, type Received } from "./iso-tp";

/** Sends a message through to a receiver, frame by frame; every frame that went over. */
function over(message: readonly number[], receiver: IsoTpReceiver): { frames: CanFrame[]; last: Received } {
  const sender = new IsoTpSender(message);
  const frames = [sender.begin()];
  let last = receiver.take(frames[0] as CanFrame);
  while ("reply" in last && last.reply) {
    for (const frame of sender.go(last.reply)) {
      frames.push(frame);
      last = receiver.take(frame);
    }
  }
  return { frames, last };
}

describe("messages over classic CAN (ISO 15765-2)", () => {
  it("sends a short one in a single frame, as the standard draws it", () => {
    const { frames, last } = over([0x01, 0x0c], new IsoTpReceiver());
    expect(frames).toEqual([[0x02, 0x01, 0x0c, 0xaa, 0xaa, 0xaa, 0xaa, 0xaa]]);
    expect(last).toEqual({ message: [0x01, 0x0c] });
  });

  it("sends a VIN in a first and two consecutive frames", () => {
    const vin = [...new TextEncoder().encode("FERROWICK00000001")];
    const { frames } = over([0x49, 0x02, 0x01, ...vin], new IsoTpReceiver());
    expect(frames.map((f) => f[0])).toEqual([0x10, 0x21, 0x22]);
    expect(frames[0]?.[1]).toBe(20);
    for (const frame of frames) expect(frame).toHaveLength(8);
  });

  it("brings any message over whole, whatever the blocks, and the count past fifteen", () => {
    const bytes = fc.array(fc.integer({ min: 0, max: 255 }), { minLength: 1, maxLength: 600 });
    fc.assert(
      fc.property(bytes, fc.integer({ min: 0, max: 9 }), (message, block) => {
        expect(over(message, new IsoTpReceiver(4095, block)).last).toEqual({ message });
      }),
    );
    expect(over(new Array<number>(4095).fill(7), new IsoTpReceiver()).last).toEqual({ message: new Array<number>(4095).fill(7) });
  });

  it("gives a message up where a frame is missing, and takes the next one whole", () => {
    const receiver = new IsoTpReceiver();
    const sender = new IsoTpSender(new Array<number>(30).fill(1));
    receiver.take(sender.begin());
    const [first, , third] = sender.go(flowControl());
    expect(receiver.take(first as CanFrame)).toEqual({});
    expect(receiver.take(third as CanFrame)).toEqual({ lost: "frame 3 came where 2 was due" });
    expect(over([0x41, 0x00], receiver).last).toEqual({ message: [0x41, 0x00] });
  });

  it("waits when told to, stops when it is too long for the other side, and refuses what is no message", () => {
    const sender = new IsoTpSender(new Array<number>(40).fill(2));
    sender.begin();
    expect(sender.go(flowControl("wait"))).toEqual([]);
    expect(sender.go(flowControl("go", 2))).toHaveLength(2);
    expect(() => sender.go(flowControl("overflow"))).toThrow(/cannot take/);
    expect(() => sender.go([0x21, 0, 0])).toThrow(/no flow control/);
    expect(() => new IsoTpSender([])).toThrow(RangeError);
    expect(() => new IsoTpSender(new Array<number>(4096).fill(0))).toThrow(RangeError);
    const small = new IsoTpReceiver(20);
    expect(small.take(new IsoTpSender(new Array<number>(40).fill(2)).begin())).toEqual({ reply: flowControl("overflow") });
    expect(new IsoTpReceiver().take([0x00, 1, 2])).toMatchObject({ lost: expect.stringMatching(/single/) });
    expect(new IsoTpReceiver().take([0x10, 0x05, 1, 2, 3, 4, 5, 6])).toMatchObject({ lost: expect.stringMatching(/first/) });
    // A piece of somebody else's message is nobody's fault.
    expect(new IsoTpReceiver().take([0x23, 1, 2, 3, 4, 5, 6, 7])).toEqual({});
  });
});
