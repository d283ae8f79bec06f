"use client";

import { Search } from "lucide-react";
import { type ComponentProps, useState } from "react";
import { SelectField } from "./field";

type Options = ComponentProps<typeof SelectField>["options"];
type Groups = NonNullable<ComponentProps<typeof SelectField>["groups"]>;

/** A list longer than this is searched, not read. */
const READ = 10;

const plain = (text: string) => text.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase();

/** Options whose name, or whose group's name, has every word that is looked for; the one that chooses nothing stays. */
function narrowed(options: Options, words: readonly string[], group = ""): Options {
  return options.filter(([id, name]) => id === "" || words.every((word) => plain(`${group} ${name}`).includes(word)));
}

/** A list to pull down, in groups, with a search beside it where it is long. What is chosen stays in the list. */
export function SearchSelect({
  options,
  groups = [],
  value,
  onPick,
  label,
  ...rest
}: Omit<ComponentProps<typeof SelectField>, "onChange" | "value"> & { value: string; onPick: (id: string) => void }) {
  const [sought, setSought] = useState("");
  const words = plain(sought).split(/\s+/).filter(Boolean);
  const all = [...options, ...groups.flatMap(([, own]) => own)];
  const found: Groups = groups.map(([name, own]) => [name, narrowed(own, words, name)]);
  const first = narrowed(options, words);
  const ids = [...new Set([...first, ...found.flatMap(([, own]) => own)].map(([id]) => id))].filter(Boolean);
  const chosen = all.filter(([id]) => id === value && id !== "" && !ids.includes(id)).slice(0, 1);
  const select = (
    <SelectField
      {...rest}
      label={label}
      options={[...chosen, ...first]}
      groups={found}
      value={value}
      onChange={(e) => onPick(e.target.value)}
    />
  );
  if (all.length <= READ) return select;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_8.5rem] items-start gap-2">
      {select}
      <label className="flex flex-col gap-1 text-sm text-muted">
        <span className="truncate">{sought && ids.length === 0 ? "None found" : "Search it"}</span>
        <span className="relative">
          <Search aria-hidden size={16} className="absolute top-1/2 left-2.5 -translate-y-1/2" />
          <input
            type="search"
            aria-label={`Search: ${label}`}
            autoComplete="off"
            className="min-h-11 w-full rounded-md border border-edge bg-raised pr-2 pl-8 text-base text-ink"
            value={sought}
            onChange={(e) => setSought(e.target.value)}
            onKeyDown={(e) => {
              if (e.key !== "Enter") return;
              // The form is not sent by a search.
              e.preventDefault();
              const [only] = ids;
              if (only === undefined) return;
              onPick(only);
              setSought("");
            }}
          />
        </span>
      </label>
    </div>
  );
}
