import type { ReactNode } from "react";

/** A table of figures whose first column names the row; where it is wider than a phone it moves sideways by itself. */
export function FigureTable({
  caption,
  heads,
  rows,
}: {
  caption: string;
  heads: readonly string[];
  rows: readonly (readonly ReactNode[])[];
}) {
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what moves sideways is moved by the keyboard too
    <section className="overflow-x-auto" tabIndex={0} aria-label={caption}>
      <table className="w-full border-collapse text-left">
        <caption className="pb-1 text-left text-muted">{caption}</caption>
        <thead>
          <tr className="border-b border-edge text-sm text-muted">
            {heads.map((head) => (
              <th key={head} scope="col" className="py-1 pr-4 font-normal">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, ...rest], i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: rows do not move
            <tr key={i} className="border-b border-line align-top">
              <th scope="row" className="py-2 pr-4 font-normal">
                {name}
              </th>
              {rest.map((cell, j) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: cells do not move
                <td key={j} className={`py-2 pr-4 tabular-nums ${typeof cell === "string" ? "whitespace-nowrap" : ""}`}>
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
