"use client";

import { fromSi } from "@/core/units";
import { Note } from "@/ui/note";
import { usePreferences } from "../../session/preferences";
import { useJob } from "../use-job";

/** Which leak a check of the vapour system is held against, and who says so. */
export function MustBeCaught() {
  const { state } = useJob();
  const { number } = usePreferences();
  const leak = state.requiredLeak;
  if (!leak)
    return (
      <Note tone="amber" as="p" tight className="text-amber">
        Which leak must be caught is not known yet: enter the code's own criteria (Scan), or the maker's figure (Story, vehicle).
        Until then a reading is a size only.
      </Note>
    );
  return (
    <p>
      Must be caught: <strong>{number(1000 * leak.diameter, 2)} mm</strong>{" "}
      <span className="text-muted">
        ({number(fromSi(leak.diameter, "thou").value, 0)} thou; {leak.source})
      </span>
    </p>
  );
}
