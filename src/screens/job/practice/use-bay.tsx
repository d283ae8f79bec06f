"use client";

import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from "react";
import type { CheckId } from "@/core/checks";
import type { Answered } from "@/core/practice/answers";
import { hintStands, isOver } from "@/core/practice/bay-entries";
import type { BayNow } from "@/workers/bay.worker";
import { bayWorker } from "../../practice/bay-worker";
import { useJob } from "../use-job";

/** The practice bay that a job is played in. */
export interface Bay {
  readonly code: string;
  /** Undefined until the car's thread has answered */
  readonly now: BayNow | undefined;
  readonly over: boolean;
  readonly hintStands: boolean;
  /** Reads a check off the car, set up as it stands */
  readonly read: (check: CheckId, setup: object) => Promise<object | undefined>;
  readonly answer: (of: Answered) => Promise<object>;
}

const Context = createContext<Bay | undefined>(undefined);

/** The bay of a practice job; undefined on a real car. */
export const useBay = (): Bay | undefined => useContext(Context);

export function BayProvider({ children }: { children: ReactNode }) {
  const { state } = useJob();
  return state.practice ? <OpenBay code={state.practice}>{children}</OpenBay> : children;
}

function OpenBay({ code, children }: { code: string; children: ReactNode }) {
  const { entries, settled } = useJob();
  const [now, setNow] = useState<BayNow>();
  const turn = useRef(0);
  useEffect(() => {
    let left = false;
    void bayWorker()
      .now(code, entries)
      .then((answer) => {
        if (!left) setNow(answer);
      });
    return () => {
      left = true;
    };
  }, [code, entries]);
  const read = useCallback<Bay["read"]>(
    // A car that was driven or mended a moment ago is read as it stands since.
    async (check, setup) => bayWorker().read(code, await settled(), check, setup, ++turn.current),
    [code, settled],
  );
  const answer = useCallback<Bay["answer"]>(async (of) => bayWorker().answer(code, await settled(), of), [code, settled]);
  const [over, stands] = useMemo(() => [isOver(entries), hintStands(entries)], [entries]);
  const bay = useMemo<Bay>(
    () => ({ code, now, over, hintStands: stands, read, answer }),
    [code, now, over, stands, read, answer],
  );
  return <Context.Provider value={bay}>{children}</Context.Provider>;
}
