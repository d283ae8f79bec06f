"use client";

import { useEffect, useState } from "react";
import type { RunningClock } from "./overlay";

/** Three short tones, high enough to be heard beside a running engine. */
const TONES = { pitch: 1760, length: 0.16, gap: 0.28, count: 3 };

/** Sounds the tones; where this device lets nothing be heard, what is shown must do. */
function ring(): void {
  try {
    const audio = new AudioContext();
    void audio.resume();
    for (let i = 0; i < TONES.count; i++) {
      const tone = audio.createOscillator();
      const volume = audio.createGain();
      volume.gain.value = 0.4;
      tone.frequency.value = TONES.pitch;
      tone.connect(volume).connect(audio.destination);
      tone.start(audio.currentTime + i * TONES.gap);
      tone.stop(audio.currentTime + i * TONES.gap + TONES.length);
    }
    setTimeout(() => void audio.close(), 1000 * (TONES.count + 1) * TONES.gap);
  } catch {}
}

/** Tells by the system too, where this device was allowed to: the screen may be dark. */
function notify(text: string): void {
  try {
    if (Notification.permission === "granted") new Notification(text, { tag: "pelota.clock" });
  } catch {}
}

/** Asks once whether clocks may tell by the system. */
export function askToNotify(): void {
  try {
    if (Notification.permission === "default") void Notification.requestPermission().catch(() => {});
  } catch {}
}

/** Longer waits are beyond what a timer counts, ms. */
const LONGEST = 2 ** 31 - 1;

/**
 * Lets running clocks be heard, each at its end or so long before it as it says. @param sound off: nothing is heard.
 * @returns what the last one said, for readers of the screen.
 */
export function useAlarms(clocks: readonly RunningClock[], sound: boolean): string {
  const [said, setSaid] = useState("");
  const running = JSON.stringify(clocks);
  useEffect(() => {
    const timers = (JSON.parse(running) as RunningClock[]).flatMap(({ name, end, done, before = 0 }) => {
      const wait = end - 1000 * before - Date.now();
      if (wait <= 0 || wait > LONGEST) return [];
      const text = before > 0 ? `${name} in ${before} s` : `${name}: ${done}`;
      const tell = () => {
        setSaid(text);
        if (!sound) return;
        ring();
        notify(text);
      };
      return [setTimeout(tell, wait)];
    });
    return () => {
      for (const timer of timers) clearTimeout(timer);
    };
  }, [running, sound]);
  return said;
}
