/** Time left as m:ss; what `done` says once it has run out. */
export function Clock({ end, now, done }: { end: number; now: number; done: string }) {
  const left = Math.ceil((end - now) / 1000);
  if (left <= 0) return <span className="text-xl font-bold text-ember">{done}</span>;
  const text = `${Math.floor(left / 60)}:${String(left % 60).padStart(2, "0")}`;
  return (
    <span role="timer" className={`text-2xl font-bold ${left < 60 ? "text-amber" : ""}`}>
      {text}
    </span>
  );
}
