import type { FieldSet, Members, RecordOf } from "../../form";

/** Things that the words of an entry may name besides its own body: what other entries of its journal said. */
export interface JournalNames {
  /** Verdict of a check; undefined where it was taken out since */
  readonly headline: (entry: string) => string | undefined;
  readonly repair: (entry: string) => string;
  readonly offCar: (entry: string) => string;
  /** It is a closing that waits for a lead */
  readonly asksToClose: (entry: string) => boolean;
}

/** A kind of entry: what its body records, by which version of it, and how it stands in the journal. */
export interface EntryKind<Body extends object = object> {
  readonly fields: { readonly schema: FieldSet<Members>["schema"]; readonly members: Members };
  /** The version of its body that is written today; 1 where left out */
  readonly version?: number;
  /** Fields that a body of today's version must say beyond what older ones could leave open */
  readonly today?: { readonly schema: FieldSet<Members>["schema"] };
  /** A day of it that lies ahead when it is written, and what to say where it does not */
  readonly ahead?: { readonly field: string; readonly message: string };
  /** One line of the journal; `entry` is its own id */
  words(body: Body, names: JournalNames, entry: string): string;
}

/** Ties an entry kind to the record of its fields. */
export const entryKind = <F extends Members>(
  fields: FieldSet<F>,
  rest: Omit<EntryKind<RecordOf<FieldSet<F>>>, "fields" | "ahead"> & {
    readonly ahead?: { readonly field: keyof F & string; readonly message: string };
  },
): EntryKind<RecordOf<FieldSet<F>>> => ({ fields, ...rest });
