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

/**
 * The jobs that are written to, as server-sent events (WHATWG HTML, 9.2), for as long as somebody reads them.
 * @param mayHear whether the device is still let in: one that is put out hears nothing more.
 */
export function changeStream(signal: AbortSignal, mayHear: () => boolean = () => true): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  let end = () => {};
  return new ReadableStream({
    start(stream) {
      const say = (text: string) => {
        try {
          if (!mayHear()) {
            end();
            stream.close();
            return;
          }
          stream.enqueue(encoder.encode(text));
        } catch {
          // Nobody reads any more.
          end();
        }
      };
      const leave = listen((jobId) => say(`data: ${JSON.stringify({ jobId })}\n\n`));
      const beat = setInterval(() => say(":\n\n"), STILL_HERE);
      beat.unref();
      end = () => {
        leave();
        clearInterval(beat);
      };
      signal.addEventListener("abort", () => end());
      say(`retry: ${ASK_AGAIN}\n\n`);
    },
    cancel() {
      end();
    },
  });
}
