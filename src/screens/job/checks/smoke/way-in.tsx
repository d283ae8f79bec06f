"use client";

import { type Circuit, type FillSetup, hoseEnds, sidesOf, usualSetup, type ZoneId } from "@/core/vehicle";
import { Choice } from "@/ui/choice";
import { SelectField } from "@/ui/field";
import { useJob } from "../../use-job";

/** Where smoke goes in: the usual ways first, any other hose's end after them, and which side of it. */
export function WayIn({
  circuit,
  setup,
  onChange,
  hint,
}: {
  circuit: Circuit;
  setup: Pick<FillSetup, "entry" | "into">;
  onChange: (setup: FillSetup) => void;
  hint?: string | undefined;
}) {
  const { layout } = useJob();
  if (!layout) return null;
  const ends = hoseEnds(layout, circuit);
  const option = (j: (typeof ends)[number]) => [j.id, `${j.name} (${j.end?.removes})`] as const;
  const at = ends.find((j) => j.id === setup.entry);
  const sides = at ? sidesOf(layout, at) : [];
  const zoneName = (id: ZoneId) => layout.zones.find((z) => z.id === id)?.name ?? id;
  const go = (entry: string, into?: ZoneId) => onChange({ into: undefined, ...usualSetup(layout, entry, into) });
  return (
    <div className="flex flex-col gap-3">
      <SelectField
        label="Let smoke in at"
        options={ends.filter((j) => j.end?.usual).map(option)}
        groups={[["Any other hose's end", ends.filter((j) => !j.end?.usual).map(option)]]}
        value={setup.entry}
        onChange={(e) => go(e.target.value)}
        hint={hint}
      />
      {at && sides.length > 1 && (
        <Choice
          label="Into which side"
          options={sides.map((zone) => [zone, zoneName(zone)] as const)}
          value={setup.into ?? sides[0]}
          onChange={(into) => go(at.id, into === sides[0] ? undefined : into)}
        />
      )}
    </div>
  );
}
