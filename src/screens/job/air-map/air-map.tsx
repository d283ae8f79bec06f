"use client";

import { memo, useState } from "react";
import { BURST_POINTS, reachOf, type ZoneId, type ZonePlace } from "@/core/vehicle";
import { useOverlay } from "../overlay";
import { useJob } from "../use-job";
import { Burst, InHand, JointMark } from "./marks";
import { ZoneSheet } from "./zone-sheet";

type Known = "untested" | "reached" | "tight" | "leaking";
const KNOWN_WORDS: Record<Known, string> = {
  untested: "untested",
  reached: "smoke reached it",
  tight: "proved tight",
  leaking: "leaking",
};

/** The vehicle's gas paths with what is known drawn into the pipes. Computed from the journal; nobody draws on it. */
export const AirMapView = memo(function AirMapView() {
  const { map, layout, state } = useJob();
  const { overlay } = useOverlay();
  const [open, setOpen] = useState<ZoneId>();
  if (!map || !layout) {
    return <p className="px-5 py-10 text-muted">The air map is drawn once the vehicle's facts are written down.</p>;
  }
  const planned = overlay.setup ? reachOf(layout, overlay.setup).zones : [];
  const known = (zone: ZoneId): Known => {
    const word = state.zones.find((z) => z.zone === zone)?.state;
    return word === undefined || word === "not-reached" ? "untested" : word;
  };
  const leaks = [
    ...new Set([...(overlay.seen ?? []), ...state.zones.flatMap((z) => (z.state === "leaking" && z.joint ? [z.joint] : []))]),
  ];
  const size = (joint: string) => state.findings.find((f) => f.body.joint === joint && !f.repairedBy)?.body.size;
  return (
    <section aria-label="Air map" className="relative">
      <div className="overflow-x-auto px-3 pt-2">
        <svg viewBox={`0 0 ${map.width} ${map.height}`} className="w-full min-w-[56rem]">
          <title>Gas paths, air flowing left to right</title>
          <Patterns />
          {map.joints.map((place) =>
            place.passage ? (
              <polyline
                key={place.joint.id}
                points={place.passage.map((p) => `${p.x},${p.y}`).join(" ")}
                fill="none"
                stroke="var(--edge)"
                strokeWidth={7}
              />
            ) : null,
          )}
          {map.zones.map((place) => (
            <Zone
              key={place.zone}
              place={place}
              known={known(place.zone)}
              planned={planned.includes(place.zone)}
              onOpen={() => setOpen(place.zone)}
            />
          ))}
          {map.joints.map((place) => (
            <JointMark
              key={place.joint.id}
              place={place}
              blocked={overlay.setup?.blocked.includes(place.joint.id) ?? false}
              heldOpen={overlay.setup?.heldOpen.includes(place.joint.id) ?? false}
              entry={overlay.setup?.entry === place.joint.id}
              displaced={state.offCar.some((i) => i.open && i.joint === place.joint.id)}
            />
          ))}
          {map.zones.map((place) => (
            <ZoneLabel key={place.zone} place={place} known={known(place.zone)} />
          ))}
          {map.joints
            .filter((p) => p.joint.id === overlay.at)
            .map((p) => (
              <InHand
                key={p.joint.id}
                place={p}
                named={!map.joints.some((l) => leaks.includes(l.joint.id) && l.joint.from === p.joint.from)}
              />
            ))}
          {leaks.map((id) => {
            const place = map.joints.find((p) => p.joint.id === id);
            return place ? <Burst key={id} place={place} size={size(id)} /> : null;
          })}
        </svg>
      </div>
      <Legend planning={planned.length > 0} />
      <ZoneSheet zone={open} onClose={() => setOpen(undefined)} />
    </section>
  );
});

function Patterns() {
  return (
    <defs>
      <pattern id="hatch" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="9" height="9" fill="var(--panel)" />
        <line x1="0" y1="0" x2="0" y2="9" stroke="var(--line)" strokeWidth="4" />
      </pattern>
      <pattern id="mist" width="12" height="12" patternUnits="userSpaceOnUse">
        <rect width="12" height="12" fill="var(--raised)" />
        <circle cx="3" cy="3" r="2.1" fill="var(--muted)" />
        <circle cx="9" cy="9" r="1.6" fill="var(--muted)" />
      </pattern>
      <pattern id="tight" width="6" height="6" patternUnits="userSpaceOnUse">
        <rect width="6" height="6" fill="var(--calm)" />
      </pattern>
    </defs>
  );
}

const FILLS: Record<Known, string> = {
  untested: "url(#hatch)",
  reached: "url(#mist)",
  tight: "url(#tight)",
  leaking: "url(#mist)",
};
const EDGES: Record<Known, string> = {
  untested: "var(--edge)",
  reached: "var(--ink)",
  tight: "var(--calm)",
  leaking: "var(--ember)",
};

/** A zone as drawn: what is known of it fills it, and what the fill being set up can reach is rimmed and misted. */
function Zone({ place, known, planned, onOpen }: { place: ZonePlace; known: Known; planned: boolean; onOpen: () => void }) {
  const fill = planned && known === "untested" ? "url(#mist)" : FILLS[known];
  const edge = planned ? "var(--live)" : EDGES[known];
  return (
    // biome-ignore lint/a11y/useSemanticElements: a button cannot stand inside an SVG
    <g
      role="button"
      tabIndex={0}
      aria-label={`${place.name}: ${KNOWN_WORDS[known]}${planned ? ", this fill reaches it" : ""}`}
      className="cursor-pointer outline-offset-4"
      onClick={onOpen}
      onKeyDown={(e) => {
        if (e.key === "Enter" || e.key === " ") {
          e.preventDefault();
          onOpen();
        }
      }}
    >
      {place.boxes.map((box) => {
        // A thin pipe keeps a finger-sized target around it.
        const padX = Math.max(0, (46 - box.w) / 2);
        const padY = Math.max(0, (46 - box.h) / 2);
        return (
          <g key={`${box.x} ${box.y}`}>
            <rect x={box.x - padX} y={box.y - padY} width={box.w + 2 * padX} height={box.h + 2 * padY} fill="transparent" />
            <rect
              x={box.x}
              y={box.y}
              width={box.w}
              height={box.h}
              rx={4}
              fill={fill}
              stroke={edge}
              strokeWidth={known === "leaking" || planned ? 2.5 : 1.5}
            />
            {place.zone === "cylinders" &&
              [0.2, 0.4, 0.6, 0.8].map((share) => (
                <line
                  key={share}
                  x1={box.x + box.w * share}
                  x2={box.x + box.w * share}
                  y1={box.y + 12}
                  y2={box.y + box.h - 30}
                  stroke="var(--edge)"
                  strokeWidth={7}
                />
              ))}
          </g>
        );
      })}
    </g>
  );
}

function ZoneLabel({ place, known }: { place: ZonePlace; known: Known }) {
  const inside = known === "tight" && (place.boxes[0]?.h ?? 0) >= 40;
  return (
    <text
      x={place.label.x}
      y={place.label.y}
      textAnchor="middle"
      fontSize={14}
      fill={inside ? "var(--bg)" : "var(--ink)"}
      stroke={inside ? "var(--calm)" : "var(--bg)"}
      strokeWidth={4}
      paintOrder="stroke"
      aria-hidden
      className="pointer-events-none"
    >
      {place.name}
    </text>
  );
}

function Legend({ planning }: { planning: boolean }) {
  const items: [Known, string][] = [
    ["untested", "Untested"],
    ["reached", "Smoke reached"],
    ["tight", "Proved tight"],
  ];
  return (
    <ul className="flex flex-wrap justify-end gap-x-5 gap-y-1 px-5 pb-2 text-sm text-muted lg:absolute lg:top-3 lg:right-2 lg:grid lg:grid-cols-2 lg:justify-start">
      {items.map(([known, text]) => (
        <li key={known} className="flex items-center gap-2">
          <svg width="26" height="14" aria-hidden>
            <rect x="1" y="1" width="24" height="12" rx="2" fill={FILLS[known]} stroke={EDGES[known]} />
          </svg>
          {text}
        </li>
      ))}
      {planning && (
        <li className="flex items-center gap-2">
          <svg width="26" height="14" aria-hidden>
            <rect x="1" y="1" width="24" height="12" rx="2" fill="url(#mist)" stroke="var(--live)" strokeWidth="2" />
          </svg>
          This fill reaches
        </li>
      )}
      <li className="flex items-center gap-2">
        <svg width="18" height="18" viewBox="-10 -10 20 20" aria-hidden>
          <polygon points={BURST_POINTS} fill="var(--ember)" transform="scale(0.7)" />
        </svg>
        Leaking
      </li>
    </ul>
  );
}
