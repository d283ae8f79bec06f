"use client";

import { CHECK_IDS, CHECKS, sideBySide } from "@/core/checks";
import { usePreferences } from "../../session/preferences";
import { useJob } from "../use-job";

/** Logs after the repair against those before it, operating point by operating point: what changed, and how surely. */
export function SideBySide() {
  const { state } = useJob();
  const { number } = usePreferences();
  const compared = CHECK_IDS.flatMap((id) => {
    const { points, name } = CHECKS[id];
    const of = state.checks.filter((c) => c.check === id && c.verdict.outcome !== "void");
    const [before, after] = [of.findLast((c) => c.afterRepair === "before"), of.findLast((c) => c.afterRepair === "after")];
    if (!points || !before || !after) return [];
    const matched = sideBySide(points(before.record), points(after.record));
    return matched.length > 0 ? [{ id, name, matched }] : [];
  });
  if (compared.length === 0) return null;
  return (
    <section aria-label="Logs side by side" className="flex flex-col gap-3">
      <h3 className="text-lg font-bold">Logs side by side, by operating point</h3>
      {compared.map(({ id, name, matched }) => (
        <details key={id}>
          <summary className="flex min-h-11 cursor-pointer items-center">
            {name}: {matched.length} {matched.length === 1 ? "point" : "points"} in both
          </summary>
          {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reached by keyboard */}
          <section className="overflow-x-auto" aria-label={`${name}, side by side`} tabIndex={0}>
            <table className="w-full text-left">
              <thead>
                <tr className="border-b border-line text-sm text-muted">
                  <th className="py-1 pr-3 font-normal">rpm</th>
                  <th className="pr-3 font-normal">Reading</th>
                  <th className="pr-3 text-right font-normal">Before</th>
                  <th className="pr-3 text-right font-normal">After</th>
                  <th className="text-right font-normal">Change (95 %)</th>
                </tr>
              </thead>
              <tbody>
                {matched.flatMap(({ after, differences }, m) =>
                  differences.map((d, i) => {
                    const sure = d.low > 0 || d.high < 0;
                    return (
                      // biome-ignore lint/suspicious/noArrayIndexKey: a matched point keeps its place in the list
                      <tr key={`${m} ${d.name}`} className={i === 0 ? "border-t border-line" : ""}>
                        <td className="pr-3">{i === 0 ? number(after.rpm, 0) : ""}</td>
                        <td className="pr-3">{d.name}</td>
                        <td className="pr-3 text-right font-mono">
                          {number(d.before, 1)} {d.unit}
                        </td>
                        <td className="pr-3 text-right font-mono">
                          {number(d.after, 1)} {d.unit}
                        </td>
                        <td className={`text-right font-mono ${sure ? "font-bold" : "text-muted"}`}>
                          {d.change > 0 ? "+" : ""}
                          {number(d.change, 1)} ({number(d.low, 1)} to {number(d.high, 1)})
                        </td>
                      </tr>
                    );
                  }),
                )}
              </tbody>
            </table>
          </section>
        </details>
      ))}
    </section>
  );
}
