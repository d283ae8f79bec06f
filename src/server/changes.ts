type Tell = (jobId: string) => void;

// Routes are bundled apart: what they share stands with the process.
const shared = globalThis as typeof globalThis & { pelotaListeners?: Set<Tell> };
const listeners = (): Set<Tell> => {
  shared.pelotaListeners ??= new Set();
  return shared.pelotaListeners;
};

/** Tells every open device that a job was written to. */
export function tellChanged(jobId: string): void {
  for (const tell of listeners()) tell(jobId);
}

/** Hears which jobs are written to, until `leave` is called. */
export function listen(tell: Tell): () => void {
  listeners().add(tell);
  return () => {
    listeners().delete(tell);
  };
}

/** So often a stream says that it is still there, ms. */
const STILL_HERE = 15_000;
/** A device whose stream broke asks again after so long, ms. */
const ASK_AGAIN = 2000;

/** A stream that is open, and how it is looked at again or ended. */
interface Open {
  readonly side: string;
  readonly look: () => void;
  readonly end: () => void;
}
const opened = globalThis as typeof globalThis & { pelotaStreams?: Set<Open> };
const streams = (): Set<Open> => {
  opened.pelotaStreams ??= new Set();
  return opened.pelotaStreams;
};

/** Who may hear has changed: every stream asks anew whether it still may. */
export function askWhoMayHear(): void {
  for (const { look } of [...streams()]) look();
}

/** So many streams one device has at once: more tabs than anybody looks at. The oldest ends. */
const MOST_STREAMS = 24;

/**
 * The jobs that are written to, as server-sent events (WHATWG HTML, 9.2), for as long as somebody reads them. What is written costs a
 * stream no look at the database.
 * @param side the device that reads; @param mayHear whether it is still let in, asked when somebody is put out, and at every beat:
 * one that is put out hears nothing more.
 */
export function changeStream(signal: AbortSignal, side = "", mayHear: () => boolean = () => true): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  let end = () => {};
  return new ReadableStream({
    start(stream) {
      const say = (text: string) => {
        try {
          stream.enqueue(encoder.encode(text));
        } catch {
          // Nobody reads any more.
          end();
        }
      };
      const shut = () => {
        end();
        try {
          stream.close();
        } catch {
          // It was shut from the other side.
        }
      };
      const look = () => {
        if (!mayHear()) shut();
      };
      const open: Open = { side, look, end: shut };
      const leave = listen((jobId) => say(`data: ${JSON.stringify({ jobId })}\n\n`));
      const beat = setInterval(() => {
        look();
        if (streams().has(open)) say(":\n\n");
      }, STILL_HERE);
      beat.unref();
      end = () => {
        leave();
        clearInterval(beat);
        streams().delete(open);
      };
      const same = [...streams()].filter((other) => other.side === side);
      for (const oldest of same.slice(0, Math.max(0, same.length - MOST_STREAMS + 1))) oldest.end();
      streams().add(open);
      signal.addEventListener("abort", () => end());
      say(`retry: ${ASK_AGAIN}\n\n`);
      look();
    },
    cancel() {
      end();
    },
  });
}
