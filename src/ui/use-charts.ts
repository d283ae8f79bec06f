"use client";

import { useEffect, useState } from "react";
import type { Charts } from "./charts";

/** Where what charts are drawn with comes from, and what came of it. */
interface ChartSource {
  readonly fetch: () => Promise<Charts>;
  here?: Charts;
}
/** No event tells that a server is back that was stopped while the network stood: it is asked again after so long, ms. */
const AGAIN = 5000;
const SERVER: ChartSource = { fetch: () => import("./charts").then((them) => them.default) };

/** The chart library, once it is here; `away` while it was never fetched and the server does not answer. */
export function useCharts(source = SERVER): { readonly charts: Charts | undefined; readonly away: boolean } {
  const [charts, setCharts] = useState(source.here);
  const [away, setAway] = useState(false);
  useEffect(() => {
    if (source.here) return setCharts(source.here);
    let again: ReturnType<typeof setTimeout> | undefined;
    let left = false;
    const fetchThem = () =>
      source.fetch().then(
        (them) => {
          source.here = them;
          if (!left) setCharts(them);
        },
        () => {
          if (left) return;
          setAway(true);
          again = setTimeout(fetchThem, AGAIN);
        },
      );
    void fetchThem();
    return () => {
      left = true;
      clearTimeout(again);
    };
  }, [source]);
  return { charts, away };
}
