"use client";

import { useEffect, useRef, useState } from "react";
import type { RecordSource } from "@/core/checks/fields";
import type { LiveRow, ScanTool } from "@/core/devices/device";
import { LiveLog } from "@/core/devices/live-log";
import type { ScanLog } from "@/core/scan-log";
import type { CheckInHand } from "./use-check-form";
import { useWhenGone } from "./use-when-gone";

/** Interval at which what came is looked at again after so much of the stream, s. */
const LOOKS = 1;

/**
 * A scan tool that is read live into a check: its rows are kept as a log, and looked at as it grows. Unplugged, left, or with the check
 * recorded, it is read no further.
 */
export function useLiveTool<Tool extends ScanTool>(
  check: Pick<CheckInHand, "startedAt" | "busy">,
  look: (log: ScanLog, source: RecordSource) => void,
) {
  const [tool, setTool] = useState<Tool>();
  const [now, setNow] = useState<LiveRow>();
  const [ended, setEnded] = useState<string>();
  const stop = useRef<() => void>(undefined);
  const latest = useRef(look);
  latest.current = look;
  useEffect(() => () => stop.current?.(), []);
  const unplug = () => {
    stop.current?.();
    setTool(undefined);
    setNow(undefined);
    setEnded(undefined);
  };
  useWhenGone(check, unplug);
  const connect = (found: Tool) => {
    const live = new LiveLog(found.channels);
    const source: RecordSource = { kind: "device", device: found.name, simulated: found.simulated };
    let looked = 0;
    stop.current = found.start({
      row: (row) => {
        if (!live.push(row)) return;
        setNow(row);
        if (row.at - looked < LOOKS) return;
        looked = row.at;
        latest.current(live.log, source);
      },
      ended: (why) => {
        latest.current(live.log, source);
        // It is plugged in still: its key is not taken from under the finger that is on its way to it.
        setEnded(why);
      },
    });
    setTool(found);
    setEnded(undefined);
  };
  return { tool, now, ended, connect, unplug };
}
