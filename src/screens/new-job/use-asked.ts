"use client";

import { useEffect, useState } from "react";
import { getJson } from "../session/api";

/** Whoever types is given so long for the next sign, ms. */
const PAUSE = 400;

/** What the shop's server answers to something that is being typed; the answer to nothing while it has none, and without a line. */
export function useAsked<T>(path: string | undefined, nothing: T): T {
  const [answer, setAnswer] = useState<{ readonly path: string; readonly value: T }>();
  useEffect(() => {
    if (!path) return;
    let left = false;
    const ask = setTimeout(() => {
      getJson<T>(path).then(
        (value) => !left && setAnswer({ path, value }),
        () => {},
      );
    }, PAUSE);
    return () => {
      left = true;
      clearTimeout(ask);
    };
  }, [path]);
  return answer && answer.path === path ? answer.value : nothing;
}
