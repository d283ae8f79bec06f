"use client";

import { CircleCheck, CircleX } from "lucide-react";
import type { ReactNode } from "react";
import {
  type CircuitRecord,
  circuit,
  type Pin,
  type PinId,
  type PinReading,
  pinGood,
  pinsOf,
  WIRING_NAMES,
  WIRINGS,
  type Wiring,
} from "@/core/checks/circuit";
import { toSi } from "@/core/units";
import { Choice, Tick, YesNo } from "@/ui/choice";
import { QuantityField } from "@/ui/quantity-field";
import { readField } from "../../fields";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { InstrumentField, instrumentOf, NO_INSTRUMENT, REACH } from "../instrument-field";
import { JointField, useJoints } from "../joint-field";
import { useCheckDraft } from "../use-check-draft";
import { usePlace } from "../use-place";

const EMPTY = {
  joint: "",
  wiring: "two-wire" as Wiring,
  switched: "ground" as "ground" | "feed",
  battery: "",
  volts: {} as Partial<Record<PinId, string>>,
  lamp: undefined as PinReading["lamp"],
  /** Nobody said yet, where they are undefined */
  engineRunning: undefined as boolean | undefined,
  needsEngine: undefined as boolean | undefined,
  pierced: false,
  instrument: NO_INSTRUMENT,
};

/** The wire walked from battery to load: one pin after the other, the next one open, the rest waiting. */
export function CircuitCheck({ head }: { head: ReactNode }) {
  const { context, shop, state } = useJob();
  const { draft, set, clear } = useCheckDraft("circuit", EMPTY);
  const joints = useJoints("circuit");
  const best = state.next.find((n) => n.check === "circuit")?.place;
  const joint = draft.joint || best || joints[0]?.id || "";
  usePlace(
    joint,
    (j) => joints.some((x) => x.id === j.id),
    (id) => set({ joint: id }),
  );
  if (!context) return null;
  const instrument = instrumentOf(draft.instrument, shop.instruments, "voltage", REACH.volts);
  const battery = readField(draft.battery, "voltage", "V");
  const pins = pinsOf(draft.wiring, draft.switched);
  const readingOf = (pin: Pin): PinReading | undefined => {
    if (pin.expects === "lamp") return draft.lamp && { pin: pin.id, lamp: draft.lamp };
    const voltage = readField(draft.volts[pin.id] ?? "", "voltage", "V");
    return voltage && { pin: pin.id, voltage };
  };
  const good = (pin: Pin) => {
    const reading = readingOf(pin);
    return reading && battery ? pinGood(pin, reading, toSi(battery), context.limits) : undefined;
  };
  const walked = pins.findIndex((p) => good(p) !== true);
  const readings = pins.flatMap((p) => readingOf(p) ?? []);
  const record = (): CircuitRecord | string => {
    if (!instrument) return "Say which meter, its division, and what it shows with its leads together.";
    if (!battery) return "Measure across the battery first: every reading is held against it.";
    if (readings.length === 0) return "Now the first pin.";
    const { wiring, switched, engineRunning, needsEngine, pierced } = draft;
    if (needsEngine === undefined) return "Say whether it is live only with the engine running.";
    if (engineRunning === undefined) return "Say whether the engine ran meanwhile.";
    return { joint, wiring, switched, battery, engineRunning, needsEngine, readings, pierced, instrument };
  };
  return (
    <CheckFrame
      kind="circuit"
      head={head}
      plan={circuit.plan(context, { joint, wiring: draft.wiring, switched: draft.switched, pierced: draft.pierced })}
      record={record()}
      startedAt={draft.startedAt}
      onDone={clear}
    >
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <JointField label="Load" joints={joints} value={joint} onChange={(id) => set({ joint: id })} />
        <Choice
          label="Wiring"
          options={WIRINGS.map((w) => [w, WIRING_NAMES[w]] as const)}
          value={draft.wiring}
          onChange={(wiring) => set({ wiring })}
        />
        <Choice
          label="Switched side"
          options={[
            ["ground", "Ground"],
            ["feed", "Feed"],
          ]}
          value={draft.switched}
          onChange={(switched) => set({ switched })}
        />
        <div className="flex flex-col gap-3">
          <YesNo
            label="Live only with the engine running"
            yes="Yes"
            no="With the ignition"
            value={draft.needsEngine}
            onChange={(needsEngine) => set({ needsEngine })}
          />
          <YesNo
            label="Engine meanwhile"
            yes="Runs"
            no="Stands"
            value={draft.engineRunning}
            onChange={(engineRunning) => set({ engineRunning })}
          />
          <Tick label="A wire was pierced" checked={draft.pierced} onChange={(pierced) => set({ pierced })} />
        </div>
      </div>
      <InstrumentField measures="voltage" reach={REACH.volts} value={draft.instrument} onChange={(i) => set({ instrument: i })} />
      <ol className="flex flex-col">
        <Step
          name="Battery, across its terminals"
          how="In the state the circuit is measured in"
          state={battery ? true : undefined}
          open
        >
          <QuantityField
            label="Battery"
            field="voltage"
            example="14.1"
            unit="V"
            units={["V"]}
            value={draft.battery}
            onChange={(v) => set({ battery: v })}
          />
        </Step>
        {pins.map((pin, i) => (
          <Step
            key={pin.id}
            name={pin.name}
            how={pin.how}
            state={good(pin)}
            open={Boolean(battery) && (walked < 0 || i <= walked)}
          >
            {pin.expects === "lamp" ? (
              <Choice
                label="The lamp"
                options={[
                  ["bright", "Bright"],
                  ["dim", "Dim"],
                  ["dark", "Dark"],
                ]}
                value={draft.lamp}
                onChange={(lamp) => set({ lamp })}
              />
            ) : (
              <QuantityField
                label={pin.name}
                field="voltage"
                example={pin.expects === "nothing" ? "0.1" : "13.8"}
                unit="V"
                units={["V", "mV"]}
                value={draft.volts[pin.id] ?? ""}
                onChange={(v) => set({ volts: { ...draft.volts, [pin.id]: v } })}
              />
            )}
          </Step>
        ))}
      </ol>
    </CheckFrame>
  );
}

/** One pin on the wire: open while it is next or was read, a name only while it waits. */
function Step({
  name,
  how,
  state,
  open,
  children,
}: {
  name: string;
  how: string;
  state: boolean | undefined;
  open: boolean;
  children: ReactNode;
}) {
  const edge = state === undefined ? "border-edge" : state ? "border-calm" : "border-ember";
  return (
    <li className={`border-l-4 py-2 pl-4 ${edge} ${open ? "" : "text-muted"}`}>
      <p className="flex items-center gap-2 font-bold">
        {state !== undefined &&
          (state ? (
            <CircleCheck aria-label="right" size={18} className="text-calm" />
          ) : (
            <CircleX aria-label="wrong" size={18} className="text-ember" />
          ))}
        {name}
      </p>
      {open && (
        <div className="grid items-start gap-3 sm:grid-cols-[minmax(0,1fr)_16rem]">
          <p className="text-muted">{how}.</p>
          {children}
        </div>
      )}
    </li>
  );
}
