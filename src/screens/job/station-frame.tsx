import type { ReactNode } from "react";

/** A station's heading and work. */
export function StationFrame({ title, lead, children }: { title: string; lead?: string; children: ReactNode }) {
  return (
    <div className="flex max-w-5xl flex-col gap-5">
      <div>
        <h2 className="text-2xl font-bold">{title}</h2>
        {lead && <p className="mt-1 text-muted">{lead}</p>}
      </div>
      {children}
    </div>
  );
}
