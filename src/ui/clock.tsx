"use client";

import { useEffect, useState } from "react";

/** Time left as m:ss, ticking by itself; what `done` says once it has run out. */
export function Clock({ end, done }: { end: number; done: string }) {
  const [now, setNow] = useState(Date.now);
  useEffect(() => {
    const tick = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(tick);
  }, []);
  const left = Math.ceil((end - now) / 1000);
  if (left <= 0) return <span className="text-xl font-bold text-ember">{done}</span>;
  const text = `${Math.floor(left / 60)}:${String(left % 60).padStart(2, "0")}`;
  return (
    <span role="timer" className={`text-2xl font-bold ${left < 60 ? "text-amber" : ""}`}>
      {text}
    </span>
  );
}
