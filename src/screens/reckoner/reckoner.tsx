"use client";

import { useEffect, useState } from "react";
import { TOOLS, type Tool, toolOf } from "@/core/reckoner";
import { PageHead } from "../session/page-head";
import { load, save } from "../session/storage";
import { draftKey, inLink, linkTo } from "./link";
import type { OpenJob } from "./take-into-job";
import { ToolPanel } from "./tool-panel";

const LAST = "pelota.reckoner";

/** Everything that can be reckoned without a job: the equations of the checks, each by itself. */
export function Reckoner({ jobs }: { jobs: readonly OpenJob[] }) {
  const [chosen, setChosen] = useState<Tool>();
  // What a link carries is laid into the tool's form before it stands; else the one that was open last.
  useEffect(() => {
    const { tool, draft } = inLink(window.location.search, (id) => toolOf(id)?.form);
    const found = toolOf(tool ?? "") ?? toolOf(load<string>(LAST) ?? "") ?? TOOLS[0];
    if (found && draft) save(draftKey(found), draft);
    setChosen(found);
  }, []);
  const open = (tool: Tool) => {
    save(LAST, tool.id);
    window.history.replaceState(null, "", linkTo(tool.id, tool.form, {}));
    setChosen(tool);
  };
  return (
    <div className="mx-auto flex max-w-[90rem] flex-col gap-6 p-4 sm:p-6">
      <PageHead title="Calculator" />
      <div className="grid items-start gap-x-8 gap-y-6 lg:grid-cols-[17rem_minmax(0,1fr)]">
        <nav aria-label="Calculation" className="max-lg:overflow-x-auto">
          <ul className="flex gap-1 lg:flex-col">
            {TOOLS.map((tool) => (
              <li key={tool.id}>
                <button
                  type="button"
                  ref={(key) => {
                    // On a phone the row of tools is wider than the page.
                    if (chosen?.id === tool.id) key?.scrollIntoView({ inline: "center", block: "nearest" });
                  }}
                  aria-current={chosen?.id === tool.id}
                  onClick={() => open(tool)}
                  className={`min-h-11 w-full cursor-pointer rounded-md px-3 text-left whitespace-nowrap hover:bg-raised ${chosen?.id === tool.id ? "bg-raised font-bold text-live" : ""}`}
                >
                  {tool.name}
                </button>
              </li>
            ))}
          </ul>
        </nav>
        <main className="min-w-0">{chosen && <ToolPanel key={chosen.id} tool={chosen} jobs={jobs} />}</main>
      </div>
    </div>
  );
}
