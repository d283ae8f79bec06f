/** Bytes of a classic CAN frame, and what fills the rest of one. */
const FRAME = 8;
const PAD = 0xaa;
/** The longest message that a 12-bit length tells. */
const LONGEST_MESSAGE = 4095;

/** Type of a frame, by the high half of its first byte (ISO 15765-2, protocol control information). */
const SINGLE = 0x0;
const FIRST = 0x1;
const CONSECUTIVE = 0x2;
const FLOW = 0x3;
/** Flow status of a flow control frame. */
export const FLOW_STATUS = { go: 0, wait: 1, overflow: 2 } as const;

export type CanFrame = readonly number[];
const padded = (bytes: readonly number[]): number[] => [...bytes, ...new Array<number>(FRAME - bytes.length).fill(PAD)];

/** A flow control: go on, wait, or it is too long; how many frames until the next one (0: all), and how long between frames, ms. */
export const flowControl = (status: keyof typeof FLOW_STATUS = "go", block = 0, separation = 0): CanFrame =>
  padded([(FLOW << 4) | FLOW_STATUS[status], block, separation]);

/**
 * Sends a message over classic CAN (ISO 15765-2): one single frame up to seven bytes; else a first frame, and after each flow control as
 * many consecutive ones as it lets through. Throws RangeError for a message that is empty or longer than 4095 bytes, and for a flow
 * control that says overflow.
 */
export class IsoTpSender {
  private sent = 0;
  private next = 1;
  constructor(private readonly message: readonly number[]) {
    if (message.length === 0 || message.length > LONGEST_MESSAGE)
      throw new RangeError(`A message has 1 to ${LONGEST_MESSAGE} bytes, not ${message.length}`);
  }

  get done(): boolean {
    return this.sent >= this.message.length;
  }

  /** The first frame of it: all of it where it is short. */
  begin(): CanFrame {
    const { message } = this;
    if (message.length < FRAME) {
      this.sent = message.length;
      return padded([(SINGLE << 4) | message.length, ...message]);
    }
    this.sent = 6;
    return [(FIRST << 4) | (message.length >> 8), message.length & 0xff, ...message.slice(0, 6)];
  }

  /** Block size and separation time of a flow control frame. */
  go(control: CanFrame): CanFrame[] {
    const [pci = 0, block = 0] = control;
    if (pci >> 4 !== FLOW) throw new RangeError("This is no flow control");
    if ((pci & 0x0f) === FLOW_STATUS.overflow) throw new RangeError("The other side cannot take so long a message");
    if ((pci & 0x0f) === FLOW_STATUS.wait) return [];
    const frames: CanFrame[] = [];
    while (!this.done && (block === 0 || frames.length < block)) {
      frames.push(padded([(CONSECUTIVE << 4) | this.next, ...this.message.slice(this.sent, this.sent + 7)]));
      this.sent += 7;
      this.next = (this.next + 1) & 0x0f;
    }
    return frames;
  }
}

/** Result of a frame: a whole message, a flow control to be sent back, nothing yet, or why the message was given up. */
export type Received =
  | { readonly message: readonly number[] }
  | { readonly reply: CanFrame }
  | { readonly lost: string }
  | Record<string, never>;

/**
 * Puts messages together again from their frames (ISO 15765-2). A frame out of its order gives the message up; a new beginning while one
 * is under way replaces it.
 * @param longest what it can take; @param block frames after which it asks to be asked again.
 */
export class IsoTpReceiver {
  private bytes: number[] = [];
  private length = 0;
  private next = 0;
  private inBlock = 0;
  constructor(
    private readonly longest = LONGEST_MESSAGE,
    private readonly block = 0,
  ) {}

  take(frame: CanFrame): Received {
    const [pci = 0, second = 0] = frame;
    switch (pci >> 4) {
      case SINGLE: {
        const length = pci & 0x0f;
        this.length = 0;
        if (length === 0 || length > 7 || frame.length < length + 1) return { lost: "a single frame without its bytes" };
        return { message: frame.slice(1, 1 + length) };
      }
      case FIRST: {
        const length = ((pci & 0x0f) << 8) | second;
        if (length < FRAME) return { lost: "a first frame of a message that needs none" };
        if (length > this.longest) {
          this.length = 0;
          return { reply: flowControl("overflow") };
        }
        this.bytes = frame.slice(2, 8);
        this.length = length;
        this.next = 1;
        this.inBlock = 0;
        return { reply: flowControl("go", this.block) };
      }
      case CONSECUTIVE: {
        // One that belongs to nothing is nobody's fault: the bus carries others' too.
        if (this.length === 0) return {};
        if ((pci & 0x0f) !== this.next) {
          this.length = 0;
          return { lost: `frame ${pci & 0x0f} came where ${this.next} was due` };
        }
        this.next = (this.next + 1) & 0x0f;
        this.bytes.push(...frame.slice(1, 8));
        if (this.bytes.length >= this.length) {
          const message = this.bytes.slice(0, this.length);
          this.length = 0;
          return { message };
        }
        this.inBlock++;
        if (this.block > 0 && this.inBlock === this.block) {
          this.inBlock = 0;
          return { reply: flowControl("go", this.block) };
        }
        return {};
      }
      default:
        return {};
    }
  }
}
