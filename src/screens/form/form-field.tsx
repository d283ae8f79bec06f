"use client";

import type { ComponentProps, ReactNode } from "react";
import { type Control, useController } from "react-hook-form";
import type { InstrumentUse } from "@/core/checks/fields";
import { offZero } from "@/core/checks/instrument";
import {
  chosenGauge,
  type FormField as FormFieldSpec,
  type FormState,
  fittingGauges,
  formStateOf,
  type InstrumentField,
  isAsked,
  labelOf,
  type Option,
  OTHER_GAUGE,
  readGauge,
  resolve,
  rowsOf,
  typedGauge,
} from "@/core/form";
import type { Instrument } from "@/core/shop/settings";
import { formatQuantity } from "@/core/units";
import { afterPress } from "@/ui/after-press";
import { Chips, Choice, Tick } from "@/ui/choice";
import { SelectField, TextArea, TextField } from "@/ui/field";
import { Locked } from "@/ui/locked";
import { PickField } from "@/ui/pick-field";
import { PinPad } from "@/ui/pin-pad";
import { QuantityField } from "@/ui/quantity-field";
import { useImmediate } from "@/ui/use-immediate";
import { useTerms } from "../session/preferences";
import { PlacePicker } from "./place-picker";
import { PlacesField } from "./places-field";
import type { TypedForm } from "./use-typed-form";

interface FieldProps<Known> {
  /** Where it stands in the draft */
  readonly name: string;
  readonly field: FormFieldSpec<Known>;
  readonly state: FormState<Known>;
  /** Value: typed, or known already */
  readonly held: unknown;
  readonly control: Control;
  readonly required: boolean;
  /** How an option is drawn, where a word says less than a picture */
  readonly draw?: ((id: string, name: string) => ReactNode) | undefined;
  readonly className?: string | undefined;
  /** A tap asked for it: its keys are there at once */
  readonly opened?: boolean | undefined;
  /** Told when it is answered by hand, instead of only keeping the answer */
  readonly onChange?: ((value: unknown) => void) | undefined;
}

/** A list in which nothing is chosen yet says so. */
const UNCHOSEN = [["", "Choose a place"]] as const;

/** A list in groups: what is in none of them stands before them. */
function grouped(options: readonly Option[], groups: NonNullable<ComponentProps<typeof PickField>["groups"]>, chosen: string) {
  const within = new Set(groups.flatMap(([, own]) => own.map(([id]) => id)));
  const alone = options.filter(([id]) => !within.has(id));
  return { options: alone.length > 0 || chosen ? alone : UNCHOSEN, groups };
}

const text = (held: unknown) => (typeof held === "string" ? held : "");

const hidden = (secret: "pin" | "pad" | "passphrase") =>
  ({ type: "password", autoComplete: "off", inputMode: secret === "pin" ? "numeric" : "text" }) as const;

/** One field of a form, drawn as what it is. */
function FormField<Known>(props: FieldProps<Known>) {
  const { field, state } = props;
  if (!isAsked(field, state) || field.type === "taken" || field.type === "rows") return null;
  if (field.type === "instrument") return <GaugeField {...props} field={field} />;
  return <PlainField {...props} />;
}

function PlainField<Known>({
  name,
  field,
  state,
  held,
  control,
  required,
  draw,
  className = "",
  opened = false,
  onChange,
}: FieldProps<Known>) {
  const terms = useTerms();
  const inTerms = (options: readonly Option[]) => options.map(([id, word]): Option => [id, terms(word)]);
  const { field: input, fieldState } = useController({ control, name });
  const [shown, change] = useImmediate(held, onChange ?? input.onChange);
  const label = terms(labelOf(field, state));
  const hint = resolve(field.hint, state);
  const said = {
    label,
    hint: hint && terms(hint),
    error: fieldState.error?.message,
    required,
  };
  const typed = {
    ref: input.ref,
    value: text(shown),
    onBlur: () => afterPress(input.onBlur),
    className,
  };
  switch (field.type) {
    case "quantity":
      return (
        <QuantityField
          {...said}
          field={field.band}
          unit={resolve(field.unit, state)}
          units={field.units}
          example={resolve(field.example, state)}
          value={text(shown)}
          onChange={change}
          onBlur={input.onBlur}
          inputRef={input.ref}
        />
      );
    case "number":
      return (
        <TextField
          {...said}
          {...typed}
          inputMode="decimal"
          placeholder={field.example ? `e.g. ${field.example}` : undefined}
          onChange={(e) => change(e.target.value)}
        />
      );
    case "text":
    case "lines": {
      if (field.type === "text" && field.secret === "pad")
        return <PinPad {...said} value={text(shown)} onChange={change} inputRef={input.ref} />;
      const Box = field.type === "lines" || field.long ? TextArea : TextField;
      return (
        <Box
          {...said}
          {...typed}
          {...(field.type === "text" && field.time ? { type: field.time === "day" ? "date" : "datetime-local" } : {})}
          {...(field.type === "text" && field.secret ? hidden(field.secret) : {})}
          placeholder={resolve(field.example, state)}
          onChange={(e: { target: { value: string } }) => change(e.target.value)}
        />
      );
    }
    case "choice": {
      const options = inTerms(resolve(field.options, state));
      if (field.list)
        return (
          <PickField
            {...said}
            {...typed}
            {...(field.groups ? grouped(options, resolve(field.groups, state), text(shown)) : { options })}
            opened={opened}
            onPick={change}
          />
        );
      return (
        <Choice
          {...said}
          groupRef={input.ref}
          options={options.map(([id, word]) => [id, draw ? draw(id, word) : word] as const)}
          value={text(shown)}
          onChange={change}
        />
      );
    }
    case "answer": {
      const options = [["yes", field.yes], ["no", field.no], ...(field.open ? [["open", field.open]] : [])] as [string, string][];
      return <Choice {...said} groupRef={input.ref} options={options} value={text(shown)} onChange={change} />;
    }
    case "tick":
      return <Tick label={label} checked={shown === true} onChange={change} />;
    case "marks": {
      const marked = {
        options: inTerms(resolve(field.options, state)),
        value: Array.isArray(shown) ? shown : [],
        onChange: change,
      };
      return field.list ? <PlacesField {...said} {...marked} inputRef={input.ref} /> : <Chips {...said} {...marked} />;
    }
    case "place":
      return <PlacePicker {...said} inputRef={input.ref} among={field.among(state)} value={text(shown)} onChange={change} />;
    default:
      return null;
  }
}

/** A gauge's scale in words. */
const scaleOf = ({ division, end }: Instrument) =>
  `One division is ${formatQuantity(division)}${end ? `, it ends at ${formatQuantity(end)}` : ""}`;

/** Which gauge, its division where the shop does not know it, and what it shows with nothing on it. */
function GaugeField<Known>({
  name,
  field,
  state,
  held,
  control,
}: FieldProps<Known> & { readonly field: InstrumentField<Known> }) {
  const id = useController({ control, name: `${name}.id` });
  const division = useController({ control, name: `${name}.division` });
  const zero = useController({ control, name: `${name}.zero` });
  const end = useController({ control, name: `${name}.end` });
  const typed = typedGauge(held);
  const fitting = fittingGauges(field.shop(state), field);
  const chosen = chosenGauge(typed, fitting);
  const read = readGauge(held, field, field.shop(state));
  const off = read.value ? offZero(read.value as InstrumentUse) : undefined;
  return (
    <div className={`grid items-start gap-x-4 gap-y-2 ${chosen ? "sm:grid-cols-2" : "sm:grid-cols-2 xl:grid-cols-4"}`}>
      <SelectField
        label={labelOf(field, state)}
        ref={id.field.ref}
        options={[
          ...fitting.map((i) => [i.id, i.name] as const),
          [OTHER_GAUGE, fitting.length > 0 ? "Another one" : "One not described in Shop"] as const,
        ]}
        value={chosen?.id ?? OTHER_GAUGE}
        onChange={(e) => id.field.onChange(e.target.value)}
        hint={chosen && scaleOf(chosen)}
      />
      {!chosen && (
        <TextField
          label="One division of its scale"
          required
          ref={division.field.ref}
          placeholder={field.measures === "voltage" ? "0.01 V" : "0.5 inHg"}
          value={typed.division ?? ""}
          error={division.fieldState.error?.message}
          onBlur={() => afterPress(division.field.onBlur)}
          onChange={(e) => division.field.onChange(e.target.value)}
        />
      )}
      {!chosen && (
        <TextField
          label="Its scale ends at, if known"
          ref={end.field.ref}
          placeholder={field.measures === "voltage" ? "20 V" : "30 inHg"}
          value={typed.end ?? ""}
          error={end.fieldState.error?.message}
          onBlur={() => afterPress(end.field.onBlur)}
          onChange={(e) => end.field.onChange(e.target.value)}
        />
      )}
      <TextField
        label="Shows with nothing on it"
        ref={zero.field.ref}
        value={typed.zero ?? "0"}
        error={zero.fieldState.error?.message}
        warning={off}
        onBlur={() => afterPress(zero.field.onBlur)}
        onChange={(e) => zero.field.onChange(e.target.value)}
        hint={chosen ? `in ${chosen.division.unit}` : undefined}
      />
    </div>
  );
}

/** Fields of a form by their names, in the order they are state. */
export function FormFields<Known, Name extends string>({
  of,
  names,
  onChange,
  ...look
}: {
  of: Pick<TypedForm<object, Known, Name>, "form" | "formState" | "control" | "required" | "value" | "busy">;
  names: readonly NoInfer<Name>[];
  onChange?: (name: NoInfer<Name>, value: unknown) => void;
} & Pick<FieldProps<Known>, "draw" | "className">) {
  const { form, formState, control, required, value, busy } = of;
  const fields = names.map((name) => (
    <FormField
      key={name}
      name={name}
      field={form.fields[name]}
      state={formState}
      held={value(name)}
      control={control}
      required={required(name)}
      onChange={onChange && ((value) => onChange(name, value))}
      {...look}
    />
  ));
  return <Locked when={busy}>{fields}</Locked>;
}

/** Fields of one row of a list. */
export function RowFields<Known, Name extends string>({
  of,
  rows,
  index,
  names,
  opened,
}: {
  of: Pick<TypedForm<object, Known, Name>, "form" | "formState" | "control" | "value" | "busy">;
  rows: NoInfer<Name>;
  index: number;
  names: readonly string[];
  /** The one of them that a tap asked for */
  opened?: string | undefined;
}) {
  const list = of.form.fields[rows];
  if (list.type !== "rows") throw new Error(`${rows} has no rows`);
  const row = rowsOf(of.value(rows))[index] ?? {};
  const state = formStateOf(list.fields, row, of.formState.known);
  const fields = names.map((name) => (
    <FormField
      key={name}
      name={`${rows}.${index}.${name}`}
      field={list.fields[name] as FormFieldSpec<Known>}
      state={state}
      held={state.value(name)}
      control={of.control}
      required={false}
      opened={name === opened}
    />
  ));
  return <Locked when={of.busy}>{fields}</Locked>;
}
