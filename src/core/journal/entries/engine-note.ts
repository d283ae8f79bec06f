import { choice, fields, formOf, text } from "../../form";
import { inSentence } from "../../sentence";
import { entryKind } from "./entry-kind";
import { pictures } from "./shared";

/** Subject that a note for an engine's card is about. */
export const ENGINE_NOTES = {
  "way-in": "The way in",
  tools: "Tools and insertion depths",
  torque: "A torque, with its source",
  kit: "The kit: what to have ready",
  reading: "What it reads when sound",
  other: "Something else",
} as const;
export type EngineNote = keyof typeof ENGINE_NOTES;

/** Note for whoever works on such an engine next should know: it stands on the engine's card. */
const engineNoteFields = fields({
  about: choice(ENGINE_NOTES, { label: "About", list: true, missing: "Say what the note is about", defaultValue: "way-in" }),
  text: text({
    name: "The note",
    label: "For whoever works on this engine next",
    long: true,
    max: 1000,
    missing: "The note is empty",
  }),
  pictures: pictures(),
});

export const engineNoteForm = formOf<undefined>()(engineNoteFields);

export const engineNote = entryKind(engineNoteFields, {
  words: (b) => `For the engine's card, ${inSentence(ENGINE_NOTES[b.about])}: ${b.text}`,
});
