"use client";

import { Minimize2 } from "lucide-react";
import { memo, useEffect, useMemo, useRef, useState } from "react";
import { CHECKS, type CheckId } from "@/core/checks";
import { isVapourLeak } from "@/core/faults";
import type { StationId } from "@/core/journal";
import { type AirMap, BURST_POINTS, EVAP_ZONES, type PlacedName, reachOf, type ZoneId, type ZonePlace } from "@/core/vehicle";
import { Button } from "@/ui/button";
import { useWide } from "@/ui/use-wide";
import { usePreferences } from "../../session/preferences";
import { useOverlay } from "../overlay";
import { useJob } from "../use-job";
import { Burst, InHand, JointMark, NameOnMap } from "./marks";
import { namesOn, sayings } from "./names";
import { MapStrip } from "./strip";
import { ZoneSheet } from "./zone-sheet";
import { EDGES, FILLS, Patterns, ZONE_STATE_WORDS, type ZoneNow, type ZoneState } from "./zone-state";

/** Stations that are worked with the whole map; elsewhere it is the strip, one tap from whole. */
const MAP_STATIONS: readonly StationId[] = ["suspects", "find", "prove"];

/** The vehicle's gas paths with what is known drawn into the pipes. Computed from the journal; nobody draws on it. */
export const AirMapView = memo(function AirMapView({
  station,
  instrument,
}: {
  station: StationId;
  instrument: CheckId | undefined;
}) {
  const { map, layout, state } = useJob();
  const { overlay } = useOverlay();
  const [open, setOpen] = useState<ZoneId>();
  const here = instrument ?? station;
  const [wholeAt, setWholeAt] = useState<string>();
  const wide = useWide();
  const small = instrument !== undefined || !wide || !MAP_STATIONS.includes(station);
  if (!map || !layout) {
    return <p className="px-5 py-3 text-muted">The air map is drawn once the vehicle's facts are written down.</p>;
  }
  const likeliest = state.suspects.find((s) => s.cause.trait !== "healthy")?.cause;
  const suspected = layout.joints.find((j) => j.id === (likeliest?.joint ?? likeliest?.device));
  const vapour = instrument
    ? CHECKS[instrument].shelf === "vapour"
    : suspected
      ? EVAP_ZONES.includes(suspected.from)
      : state.codes.some((c) => isVapourLeak(c.code) && !c.asideReason);
  const { setup } = overlay;
  const planned = setup && layout.joints.some((j) => j.id === setup.entry) ? reachOf(layout, setup).zones : [];
  const leaks = [
    ...new Set([...(overlay.seen ?? []), ...state.zones.flatMap((z) => (z.state === "leaking" && z.joint ? [z.joint] : []))]),
  ];
  const zones = map.zones.map(({ zone, name }): ZoneNow => {
    const word = state.zones.find((z) => z.zone === zone)?.state;
    return {
      zone,
      name,
      known: word === undefined || word === "not-reached" ? "untested" : word,
      planned: planned.includes(zone),
      leaks: leaks.filter((id) => layout.joints.some((j) => j.id === id && j.from === zone)),
    };
  });
  return (
    <section aria-label="Air map" className="relative">
      <Patterns />
      {small && wholeAt !== here ? (
        <MapStrip layout={layout} zones={zones} vapour={vapour} onZone={setOpen} onWhole={() => setWholeAt(here)} />
      ) : (
        <>
          <WholeMap map={map} zones={zones} leaks={leaks} onZone={setOpen} />
          <Legend planning={planned.length > 0} />
          {small && (
            <div className="absolute top-1 left-2">
              <Button look="bare" onClick={() => setWholeAt(undefined)}>
                <Minimize2 aria-hidden size={18} /> Small map
              </Button>
            </div>
          )}
        </>
      )}
      <ZoneSheet zone={open} onClose={() => setOpen(undefined)} />
    </section>
  );
});

function WholeMap({
  map,
  zones,
  leaks,
  onZone,
}: {
  map: AirMap;
  zones: readonly ZoneNow[];
  leaks: readonly string[];
  onZone: (zone: ZoneId) => void;
}) {
  const { state } = useJob();
  const { overlay } = useOverlay();
  const { format } = usePreferences();
  const now = new Map(zones.map((z) => [z.zone, z]));
  const off = state.offCar.flatMap((i) => (i.open && i.joint ? [i.joint] : []));
  const said = sayings(map, { ...overlay, leaks, off }, (joint) => {
    const size = state.findings.find((f) => f.body.joint === joint && !f.repairedBy)?.body.size;
    return size ? ` ≈ ${format(size, 1)}` : "";
  });
  const words = JSON.stringify(said);
  // Said the same, the names need no new place.
  const names = useMemo(() => namesOn(map, JSON.parse(words) as typeof said), [map, words]);
  /** A zone's name inside it, where that is drawn solid */
  const onSolid = ({ id, within }: PlacedName) => within && now.get(id as ZoneId)?.known === "tight";
  const likeliest = state.suspects.find((s) => s.cause.trait !== "healthy")?.cause;
  const target = [overlay.at, leaks[0], overlay.setup?.entry, likeliest?.joint ?? likeliest?.device]
    .map((id) => map.joints.find(({ joint }) => joint.id === id))
    .find((place) => place !== undefined);
  const scroller = useRef<HTMLDivElement>(null);
  // Where the map is wider than the screen it begins where the work is.
  const at = target ? target.x / map.width : undefined;
  useEffect(() => {
    const box = scroller.current;
    if (box && at !== undefined) box.scrollLeft = at * box.scrollWidth - box.clientWidth / 2;
  }, [at]);
  return (
    <div ref={scroller} className="overflow-x-auto px-3 pt-2">
      <svg viewBox={`0 0 ${map.width} ${map.height}`} className="w-full min-w-[56rem]">
        <title>Gas paths, air flowing left to right</title>
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
          <Zone key={place.zone} place={place} now={now.get(place.zone) as ZoneNow} onOpen={() => onZone(place.zone)} />
        ))}
        {map.joints.map((place) => (
          <JointMark
            key={place.joint.id}
            place={place}
            blocked={overlay.setup?.blocked.includes(place.joint.id) ?? false}
            heldOpen={overlay.setup?.heldOpen.includes(place.joint.id) ?? false}
            entry={overlay.setup?.entry === place.joint.id}
            displaced={off.includes(place.joint.id)}
          />
        ))}
        {map.joints
          .filter((p) => p.joint.id === overlay.at)
          .map((p) => (
            <InHand key={p.joint.id} place={p} />
          ))}
        {map.joints
          .filter((p) => leaks.includes(p.joint.id))
          .map((p) => (
            <Burst key={p.joint.id} place={p} />
          ))}
        {names.map(({ name, colour, bold }) =>
          onSolid(name) ? (
            <NameOnMap key={name.id} name={name} colour="var(--bg)" rim="var(--calm)" />
          ) : (
            <NameOnMap key={name.id} name={name} colour={colour} bold={bold} />
          ),
        )}
      </svg>
    </div>
  );
}

/** A zone as drawn: what is known of it fills it, and what the fill being set up can reach is rimmed and misted. */
function Zone({ place, now: { known, planned }, onOpen }: { place: ZonePlace; now: ZoneNow; onOpen: () => void }) {
  const fill = planned && known === "untested" ? "url(#mist)" : FILLS[known];
  const edge = planned ? "var(--live)" : EDGES[known];
  return (
    // biome-ignore lint/a11y/useSemanticElements: a button cannot stand inside an SVG
    <g
      role="button"
      tabIndex={0}
      aria-label={`${place.name}: ${ZONE_STATE_WORDS[known]}${planned ? ", this fill reaches it" : ""}`}
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

function Legend({ planning }: { planning: boolean }) {
  const items: [ZoneState, string][] = [
    ["untested", "Untested"],
    ["reached", "Smoke reached"],
    ["tight", "Proved tight"],
  ];
  return (
    // In a row of its own: over the map it would lie on some layout's names.
    <ul className="flex flex-wrap justify-end gap-x-5 gap-y-1 px-5 pb-1 text-sm text-muted">
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
