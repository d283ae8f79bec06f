"use client";

import { ArrowDown } from "lucide-react";
import type { ReactNode } from "react";
import { chain, LINK_NAMES, type LinkId, linkSoFar, linksOf } from "@/core/checks/chain";
import { chainForm } from "@/core/checks/chain/fields";
import { getIn, readSoFar } from "@/core/form";
import { FormFields } from "../../../form/form-field";
import { CheckFrame } from "../check-frame";
import { useCheckForm } from "../use-check-form";

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

/** Readings of each link. */
const FIELDS = {
  supply: ["source", "links.supply"],
  control: ["links.battery", "links.control", "links.fed"],
  outlet: ["links.outlet"],
  diaphragm: ["links.diaphragm.start", "links.diaphragm.end", "links.diaphragm.seconds"],
  shaft: ["links.shaft"],
  movement: ["links.movement"],
  plate: ["links.plate"],
} as const satisfies Record<LinkId, readonly (keyof typeof chainForm.fields)[]>;

const WORDS = { good: ["good", "text-calm"], broken: ["broken", "text-ember"] } as const;

/** The chain drawn as one: each link opens once all before it are good, and the first broken one ends it. */
export function ChainCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("chain", chainForm);
  const { context, known } = check;
  const draft = check.draft();
  const read = readSoFar(chainForm, draft, known);
  const stateOf = (id: LinkId) => linkSoFar(id, read, context);
  // What was typed into stays in sight, whatever became of a link before it.
  const holdsText = (id: LinkId) => FIELDS[id].some((name) => ![undefined, ""].includes(getIn(draft, name) as undefined));
  const links = linksOf({ device: String(check.value("device") ?? "") });
  const next = links.findIndex((id) => stateOf(id) !== "good");
  const current = links[next < 0 ? links.length - 1 : next] as LinkId;
  return (
    <CheckFrame check={check} head={head} plan={chain.plan(context, undefined)} at={AT[current]}>
      <ol className="flex max-w-3xl flex-col gap-1">
        {links.map((id, i) => {
          const state = stateOf(id);
          const open = next < 0 || i <= next || holdsText(id);
          const edge =
            state === "good" ? "border-calm" : state === "broken" ? "border-ember" : open ? "border-live" : "border-line";
          return (
            <li key={id}>
              {i > 0 && <ArrowDown aria-hidden size={18} className="ml-3 text-muted" />}
              <div className={`border-l-4 px-4 py-2 ${edge} ${open ? "bg-raised" : "text-muted"}`}>
                <p className="flex justify-between gap-3 font-bold">
                  {LINK_NAMES[id]}
                  {state !== "unread" && <span className={WORDS[state][1]}>{WORDS[state][0]}</span>}
                </p>
                {open && (
                  <div className="grid items-start gap-3 sm:grid-cols-3">
                    <FormFields of={check} names={FIELDS[id]} />
                  </div>
                )}
              </div>
            </li>
          );
        })}
      </ol>
      <FormFields of={check} names={["instrument"]} />
    </CheckFrame>
  );
}
