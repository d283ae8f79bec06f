"use client";

import { ArrowDown } from "lucide-react";
import type { ReactNode } from "react";
import { type ChainRecord, chain, LINK_NAMES, LINKS, type LinkId, readLink } from "@/core/checks/chain";
import { Choice } from "@/ui/choice";
import { TextField } from "@/ui/field";
import { QuantityField } from "@/ui/quantity-field";
import { readField } from "../../fields";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { InstrumentField, instrumentOf, NO_INSTRUMENT, REACH } from "../instrument-field";
import { readNumber } from "../read-number";
import { useCheckDraft } from "../use-check-draft";
import { usePlace } from "../use-place";

type Answer = "yes" | "no" | undefined;
const EMPTY = {
  device: "Runner flaps",
  supply: "",
  battery: "",
  control: "",
  outlet: "",
  holdStart: "",
  holdEnd: "",
  holdSeconds: "60",
  shaft: undefined as Answer,
  movement: undefined as Answer,
  plate: undefined as Answer,
  instrument: NO_INSTRUMENT,
};

/** Where each link stands on the air map. */
const AT: Record<LinkId, string> = {
  supply: "flap-check-valve",
  control: "flap-solenoid",
  outlet: "flap-solenoid",
  diaphragm: "flap-diaphragm",
  shaft: "flap-spindle",
  movement: "flap-spindle",
  plate: "flap-spindle",
};
const QUESTIONS: Partial<Record<LinkId, readonly [string, string]>> = {
  shaft: ["Free", "Binds"],
  movement: ["Moves", "Does not"],
  plate: ["Whole", "Broken or loose"],
};

/** The chain drawn as one: each link opens once all before it are good, and the first broken one ends it. */
export function ChainCheck({ head }: { head: ReactNode }) {
  const { context, shop } = useJob();
  const { draft, set, clear } = useCheckDraft("chain", EMPTY);
  const instrument = instrumentOf(draft.instrument, shop.instruments, "pressure", REACH.vacuum);
  const yes = (a: Answer) => (a === undefined ? undefined : a === "yes");
  const supply = readField(draft.supply, "vacuum", "inHg");
  const battery = readField(draft.battery, "voltage", "V");
  const control = readField(draft.control, "voltage", "V");
  const outlet = readField(draft.outlet, "vacuum", "inHg");
  const [start, end, seconds] = [draft.holdStart, draft.holdEnd, draft.holdSeconds].map(readNumber);
  const answers = { shaft: yes(draft.shaft), movement: yes(draft.movement), plate: yes(draft.plate) };
  const links: ChainRecord["links"] = {
    ...(supply ? { supply } : {}),
    ...(battery ? { battery } : {}),
    ...(control && battery ? { control } : {}),
    ...(outlet ? { outlet } : {}),
    ...(start !== undefined && end !== undefined && seconds !== undefined
      ? { diaphragm: { start, end, seconds, unit: "inHg" as const } }
      : {}),
    ...(Object.fromEntries(Object.entries(answers).filter(([, v]) => v !== undefined)) as Partial<typeof answers> as object),
  };
  const record: ChainRecord | undefined = instrument && { device: draft.device, links, instrument };
  const stateOf = (id: LinkId) => (record && context ? readLink(id, record, context) : "unread");
  const next = LINKS.findIndex((id) => stateOf(id) !== "good");
  const current = LINKS[next < 0 ? LINKS.length - 1 : next] as LinkId;
  usePlace(AT[current], () => false, undefined);
  if (!context) return null;
  const field = (id: LinkId) => {
    const question = QUESTIONS[id];
    if (question) {
      return (
        <Choice
          label={LINK_NAMES[id]}
          options={[
            ["yes", question[0]],
            ["no", question[1]],
          ]}
          value={draft[id as "shaft" | "movement" | "plate"]}
          onChange={(v) => set({ [id]: v })}
        />
      );
    }
    if (id === "diaphragm") {
      return (
        <div className="grid grid-cols-3 gap-3">
          <TextField label="Start, inHg" value={draft.holdStart} onChange={(e) => set({ holdStart: e.target.value })} />
          <TextField label="End, inHg" value={draft.holdEnd} onChange={(e) => set({ holdEnd: e.target.value })} />
          <TextField label="After, s" value={draft.holdSeconds} onChange={(e) => set({ holdSeconds: e.target.value })} />
        </div>
      );
    }
    if (id === "control") {
      return (
        <div className="grid gap-3 sm:grid-cols-2">
          {(["battery", "control"] as const).map((key) => (
            <QuantityField
              key={key}
              label={key === "battery" ? "Battery" : "Across the solenoid, commanded"}
              field="voltage"
              example={key === "battery" ? "14.1" : "13.6"}
              unit="V"
              units={["V"]}
              value={draft[key]}
              onChange={(v) => set({ [key]: v })}
            />
          ))}
        </div>
      );
    }
    return (
      <QuantityField
        label={LINK_NAMES[id]}
        field="vacuum"
        example="18"
        unit="inHg"
        units={["inHg", "kPa", "mbar"]}
        value={draft[id as "supply" | "outlet"]}
        onChange={(v) => set({ [id]: v })}
      />
    );
  };
  return (
    <CheckFrame
      kind="chain"
      head={head}
      plan={chain.plan(context, undefined)}
      record={record ?? "Say which gauge, its division, and what it shows with nothing on it."}
      startedAt={draft.startedAt}
      onDone={clear}
    >
      <InstrumentField
        measures="pressure"
        reach={REACH.vacuum}
        value={draft.instrument}
        onChange={(i) => set({ instrument: i })}
      />
      <ol className="flex max-w-3xl flex-col gap-1">
        {LINKS.map((id, i) => {
          const state = stateOf(id);
          const open = next < 0 || i <= next;
          const edge =
            state === "good" ? "border-calm" : state === "broken" ? "border-ember" : open ? "border-live" : "border-line";
          return (
            <li key={id}>
              {i > 0 && <ArrowDown aria-hidden size={18} className="ml-3 text-muted" />}
              <div className={`border-l-4 px-4 py-2 ${edge} ${open ? "bg-raised" : "text-muted"}`}>
                <p className="flex justify-between gap-3 font-bold">
                  {LINK_NAMES[id]}
                  {state !== "unread" && (
                    <span className={state === "good" ? "text-calm" : "text-ember"}>{state === "good" ? "good" : "broken"}</span>
                  )}
                </p>
                {open && field(id)}
              </div>
            </li>
          );
        })}
      </ol>
    </CheckFrame>
  );
}
