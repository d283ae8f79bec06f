"use client";

import { useEffect, useState } from "react";

/** Time left as m:ss, with hours where it has them, ticking by itself; what `done` says once it has run out. */
export function Clock({ end, done }: { end: number; done: string }) {
  // The server's clock is another one: nothing is shown until this device's own has been read.
  const [now, setNow] = useState<number>();
  useEffect(() => {
    setNow(Date.now());
    const tick = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(tick);
  }, []);
  if (now === undefined) return <span role="timer" />;
  const left = Math.ceil((end - now) / 1000);
  if (left <= 0) return <span className="text-xl font-bold text-ember">{done}</span>;
  const two = (n: number) => String(Math.floor(n)).padStart(2, "0");
  const hours = Math.floor(left / 3600);
  const text = hours > 0 ? `${hours}:${two((left % 3600) / 60)}:${two(left % 60)}` : `${Math.floor(left / 60)}:${two(left % 60)}`;
  return (
    <span role="timer" className={`text-2xl font-bold ${left < 60 ? "text-amber" : ""}`}>
      {text}
    </span>
  );
}
