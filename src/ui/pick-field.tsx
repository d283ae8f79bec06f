"use client";

import { ChevronDown, ChevronUp, Search } from "lucide-react";
import { type ComponentProps, type Ref, useId, useState } from "react";
import { type Labelled, RequiredDot, SelectField } from "./field";

type Options = ComponentProps<typeof SelectField>["options"];
type Groups = NonNullable<ComponentProps<typeof SelectField>["groups"]>;

/** A list longer than this is picked from in two steps, or searched. */
const READ = 10;
/** So many keys stand under a finger at a time. */
const AT_A_TIME = 8;

const plain = (text: string) => text.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase();

/** Options of which the name, the name of the group or the id, which is a plain name too, has every word that is looked for. */
const found = (options: Options, words: readonly string[], group = ""): Options =>
  options.filter(([id, name]) => words.every((word) => plain(`${group} ${name} ${id}`).includes(word)));

interface Props extends Labelled {
  /** Those that belong to no group, before the groups; the one without an id chooses nothing */
  options: Options;
  groups?: Groups;
  value: string;
  onPick: (id: string) => void;
  /** It was asked for by the tap that brought it: its keys are there at once */
  opened?: boolean;
  onBlur?: () => void;
  className?: string;
  ref?: Ref<HTMLButtonElement & HTMLSelectElement>;
}

/** One of many: first the group, then one of its few, or any by a word of its name. A short list is pulled down as it is. */
export function PickField({ groups = [], options, value, onPick, opened, ...rest }: Props) {
  const all = [...options, ...groups.flatMap(([, own]) => own)];
  // A list pulled down shows its first option, chosen or not: what nobody chose says so.
  const unchosen: Options = value === "" && !all.some(([id]) => id === "") ? [["", "Choose one"]] : [];
  if (all.length <= READ)
    return (
      <SelectField
        {...rest}
        options={[...unchosen, ...options]}
        groups={groups}
        value={value}
        onChange={(e) => onPick(e.target.value)}
      />
    );
  return <Picker {...rest} opened={opened ?? false} options={options} groups={groups} value={value} onPick={onPick} />;
}

function Picker({
  label,
  hint,
  warning,
  error,
  required = false,
  options,
  groups,
  value,
  onPick,
  opened = false,
  onBlur,
  ref,
}: Props & { groups: Groups }) {
  const id = useId();
  // By hand alone: a list that opened or shut by what is known would move what stands below it away from under a finger.
  const [open, setOpen] = useState(opened);
  const all = [...options, ...groups.flatMap(([, own]) => own)];
  const none = options.find(([id]) => id === "")?.[1] ?? "Choose one";
  const chosen = value === "" ? undefined : all.find(([id]) => id === value)?.[1];
  const note = error ?? warning ?? hint;
  const ink = error ? "text-ember" : warning ? "text-amber" : "text-muted";
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset cannot be laid out as a field
    <div role="group" aria-labelledby={id} className="flex min-w-0 flex-col gap-1">
      <span id={id} className="text-sm text-muted">
        {label}
        {required && <RequiredDot />}
      </span>
      <button
        type="button"
        ref={ref}
        aria-expanded={open}
        aria-describedby={note ? `${id}-note` : undefined}
        onBlur={onBlur}
        onClick={() => setOpen(!open)}
        className={`flex min-h-11 w-full cursor-pointer items-center justify-between gap-2 rounded-md border bg-raised px-3 text-left ${error ? "border-ember" : "border-edge"}`}
      >
        <span className={chosen ? "" : "text-muted"}>{chosen ?? none}</span>
        {open ? <ChevronUp aria-hidden size={18} /> : <ChevronDown aria-hidden size={18} />}
      </button>
      {open && (
        <Keys
          label={label}
          options={options.filter(([id]) => id !== "")}
          groups={groups}
          value={value}
          onPick={(picked) => {
            setOpen(false);
            onPick(picked);
          }}
        />
      )}
      {note && (
        <p id={`${id}-note`} role={error || warning ? "alert" : undefined} className={`text-sm ${ink}`}>
          {note}
        </p>
      )}
    </div>
  );
}

/** The few keys of one group, or of what a word finds. */
function Keys({
  label,
  options,
  groups,
  value,
  onPick,
}: Pick<Props, "label" | "options" | "value" | "onPick"> & { groups: Groups }) {
  const filled = groups.filter(([, own]) => own.length > 0);
  const named: Groups = options.length > 0 && filled.length > 0 ? [["Others", options], ...filled] : filled;
  const [group, setGroup] = useState(() => named.find(([, own]) => own.some(([id]) => id === value))?.[0] ?? filled[0]?.[0]);
  const [sought, setSought] = useState("");
  const [shown, setShown] = useState(AT_A_TIME);
  const words = plain(sought).split(/\s+/).filter(Boolean);
  const hits =
    words.length > 0
      ? [...found(options, words), ...filled.flatMap(([name, own]) => found(own, words, name))]
      : named.length > 0
        ? (named.find(([name]) => name === group)?.[1] ?? [])
        : options;
  const keys = hits.filter(([id], i) => hits.findIndex(([other]) => other === id) === i);
  return (
    <div className="flex flex-col gap-2 rounded-md border border-line p-2">
      <span className="relative">
        <Search aria-hidden size={16} className="absolute top-1/2 left-2.5 -translate-y-1/2 text-muted" />
        <input
          type="search"
          aria-label={`Search: ${label}`}
          placeholder="Search by name"
          autoComplete="off"
          className="min-h-11 w-full rounded-md border border-edge bg-raised pr-2 pl-8 text-base text-ink"
          value={sought}
          onChange={(e) => {
            setSought(e.target.value);
            setShown(AT_A_TIME);
          }}
          onKeyDown={(e) => {
            if (e.key !== "Enter") return;
            // The form is not sent by a search.
            e.preventDefault();
            const [first] = keys;
            if (words.length > 0 && first) onPick(first[0]);
          }}
        />
      </span>
      <ul className="grid gap-1 sm:grid-cols-2">
        {keys.slice(0, shown).map(([id, name]) => (
          <li key={id}>
            <button
              type="button"
              data-id={id}
              aria-pressed={id === value}
              onClick={() => onPick(id)}
              className={`min-h-11 w-full cursor-pointer rounded-md border px-3 py-1 text-left hover:bg-raised ${id === value ? "border-live font-bold" : "border-edge"}`}
            >
              {name}
            </button>
          </li>
        ))}
      </ul>
      {keys.length === 0 && <p className="text-muted">None found.</p>}
      {keys.length > shown && (
        <button
          type="button"
          onClick={() => setShown(shown + AT_A_TIME)}
          className="min-h-11 cursor-pointer self-start px-2 underline underline-offset-4"
        >
          {keys.length - shown} more
        </button>
      )}
      {words.length === 0 && named.length > 1 && (
        <div className="flex flex-wrap gap-1 border-t border-line pt-1">
          {named.map(([name]) => (
            <button
              key={name}
              type="button"
              aria-pressed={name === group}
              onClick={() => {
                setGroup(name);
                setShown(AT_A_TIME);
              }}
              className={`min-h-11 cursor-pointer border-b-2 px-2 text-sm hover:bg-raised ${name === group ? "border-live font-bold text-live" : "border-line text-muted"}`}
            >
              {name}
            </button>
          ))}
        </div>
      )}
    </div>
  );
}
