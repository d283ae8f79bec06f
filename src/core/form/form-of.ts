import type { ObjectSchema, SchemaDescription } from "yup";
import type { UnitId } from "../units";
import type { Field, FieldSet, Members, PathsOf, RecordOfMembers } from "./fields";
import type { Dynamic, FormField, FormState, Option, Place } from "./form-field";
import type { Path } from "./path";

/** A form: its questions, and the record that its answers make. */
export interface Form<Body extends object, Known, Name extends string = string> {
  readonly schema: ObjectSchema<object>;
  readonly fields: Readonly<Record<Name, FormField<Known>>>;
  /** Parts of the record that nobody types: worked out of what was read and is known */
  readonly computed: Readonly<Record<string, (read: Readonly<Record<string, unknown>>, state: FormState<Known>) => unknown>>;
  /** Parts that are worked out of what is known: a record that is corrected keeps its own, whatever is known since */
  readonly keeps: readonly string[];
  /** Advice on what to do about a part of the record that no field asks for, by its path */
  readonly elsewhere: Readonly<Record<Path, string>>;
  /** How a record stands in a field that holds it otherwise than the record does */
  readonly laidOut: Readonly<Record<string, (record: never) => unknown>>;
  /** Names under which a device kept what was typed into a field before, by the field's name today */
  readonly formerly: Readonly<Record<string, string>>;
  /** The record it makes: a type alone */
  readonly body?: Body;
}

/** How a field is asked, where that goes by what is known or by other fields. */
export interface Asking<Known, Name extends string> {
  readonly label?: Dynamic<Known, string, Name>;
  readonly hint?: Dynamic<Known, string | undefined, Name>;
  readonly example?: Dynamic<Known, string, Name>;
  /** Whether it is asked as things stand; always, where this is left out */
  readonly when?: (state: FormState<Known, Name>) => boolean;
  /** Whether it goes into the record, where it is asked and may stand there for nothing */
  readonly counts?: (state: FormState<Known, Name>) => boolean;
  /** Wording where nothing was said though it is needed here */
  readonly needed?: (state: FormState<Known, Name>) => string | undefined;
  /** Default value while nobody touched it */
  readonly defaultValue?: (state: FormState<Known, Name>) => unknown;
  readonly options?: Dynamic<Known, readonly Option[], Name>;
  readonly groups?: Dynamic<Known, readonly (readonly [name: string, options: readonly Option[]])[], Name>;
  readonly among?: (state: FormState<Known, Name>) => readonly Place[];
  readonly unit?: Dynamic<Known, UnitId, Name>;
  readonly silent?: string;
  readonly list?: true;
}

type AskingOf<F, Known, Name extends string> = F extends { readonly inner: { readonly row: infer G extends Members } }
  ? Asking<Known, Name> & { readonly rows?: { readonly [P in PathsOf<G>]?: Asking<Known, PathsOf<G>> } }
  : Asking<Known, Name>;

/** A form over a record's fields: what is asked besides, when each is asked, and what is worked out instead of asked. */
interface FormSpec<F extends Members, A extends Members, Known> {
  /** The fields that are asked, where not all of them that have a label are */
  readonly only?: readonly PathsOf<F>[];
  /** Those of them that are read into the record all the same, to be worked on by `computed` */
  readonly into?: { readonly [P in PathsOf<A>]?: PathsOf<F> | `${PathsOf<F>}.${string}` };
  /** Those of them at which a complaint about a part of the record is said */
  readonly at?: { readonly [P in PathsOf<A>]?: PathsOf<F> | `${PathsOf<F>}.${string}` };
  readonly ask?: {
    readonly [P in PathsOf<F> | PathsOf<A>]?: AskingOf<P extends keyof F ? F[P] : unknown, Known, PathsOf<F> | PathsOf<A>>;
  };
  readonly computed?: {
    readonly [P in keyof F & string]?: (
      read: Partial<RecordOfMembers<F>>,
      state: FormState<Known, PathsOf<F> | PathsOf<A>>,
    ) => F[P]["value"] | undefined;
  };
  readonly elsewhere?: { readonly [P in PathsOf<F>]?: string };
  readonly laidOut?: { readonly [P in PathsOf<F> | PathsOf<A>]?: (record: RecordOfMembers<F>) => unknown };
  /** Names that fields had in drafts of earlier builds */
  readonly formerly?: { readonly [P in PathsOf<F> | PathsOf<A>]?: string };
  /** Worked out parts that a record which is corrected keeps as it has them */
  readonly keeps?: readonly PathsOf<F>[];
}

type Loose = Readonly<Record<string, unknown>> & { readonly rows?: Readonly<Record<string, Loose>> };

/** Members as a form's fields, groups opened; what has no label is not asked. */
function askedOf(members: Members, ask: Readonly<Record<string, Loose>>, before = ""): [string, FormField<never>][] {
  return Object.entries(members).flatMap(([name, field]): [string, FormField<never>][] => {
    const path = `${before}${name}`;
    const { input, members: inner } = field.parts;
    if (!input) return inner ? askedOf(inner, ask, `${path}.`) : [];
    const { rows = {}, ...asking } = ask[path] ?? {};
    const all: Loose = { ...input, ...asking };
    if (all.label === undefined) return [];
    const own = input.type === "rows" && inner ? { fields: Object.fromEntries(askedOf(inner, rows)) } : {};
    return [
      [
        path,
        {
          ...all,
          ...own,
          ...((input.type === "rows" || input.type === "tick") && isOptional(field) ? { optional: true } : {}),
        } as unknown as FormField<never>,
      ],
    ];
  });
}

const isOptional = (field: Field<unknown, boolean>): boolean => (field.schema.describe() as SchemaDescription).optional;

/** The form of a record, made of the fields that define it. */
export const formOf =
  <Known>() =>
  <F extends Members, const A extends Members = Record<never, never>>(
    set: FieldSet<F>,
    spec: FormSpec<NoInfer<F>, NoInfer<A>, Known> & {
      /** Fields that the record has not: they help to fill it */
      readonly aside?: A;
    } = {},
  ): Form<RecordOfMembers<F>, Known, PathsOf<F> | PathsOf<A>> => {
    const ask = (spec.ask ?? {}) as Readonly<Record<string, Loose>>;
    const places = (spec.at ?? {}) as Readonly<Record<string, string>>;
    const into = (spec.into ?? {}) as Readonly<Record<string, string>>;
    const recorded = askedOf(set.members, ask).filter(([name]) => !spec.only || (spec.only as readonly string[]).includes(name));
    const besides = askedOf(spec.aside ?? {}, ask).map(([name, field]) => [
      name,
      into[name] === undefined
        ? { ...field, aside: true, ...(places[name] ? { at: places[name] } : {}) }
        : { ...field, at: into[name] },
    ]);
    const known = Object.entries(set.members).flatMap(([name, { parts }]) => (parts.known ? [[name, parts.known] as const] : []));
    return {
      schema: set.schema,
      fields: Object.fromEntries([...recorded, ...besides]),
      computed: {
        ...Object.fromEntries(known.map(([name, { value }]) => [name, (_: unknown, state: FormState<never>) => value(state)])),
        ...spec.computed,
      } as Form<object, Known>["computed"],
      keeps: [...known.map(([name]) => name), ...(spec.keeps ?? [])],
      elsewhere: {
        ...Object.fromEntries(known.flatMap(([name, { elsewhere }]) => (elsewhere ? [[name, elsewhere]] : []))),
        ...(spec.elsewhere as Readonly<Record<Path, string>> | undefined),
      },
      formerly: (spec.formerly ?? {}) as Form<object, Known>["formerly"],
      laidOut: (spec.laidOut ?? {}) as Form<object, Known>["laidOut"],
    };
  };
