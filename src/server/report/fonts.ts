import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { Font } from "@react-pdf/renderer";
import { openSync } from "fontkit";

const HERE = join(process.cwd(), "package.json");
const B612 = join(dirname(createRequire(HERE).resolve("@fontsource/b612/package.json")), "files");
const PLEX = join(dirname(createRequire(HERE).resolve("@fontsource/ibm-plex-sans/package.json")), "files");

/** Faces that ship with the app, in the order in which they are asked for a letter: the app's own, then what it lacks. */
const FACES = [
  ["B612", B612, "b612-latin"],
  ...["latin", "latin-ext", "greek", "cyrillic", "cyrillic-ext", "vietnamese"].map((script) => [
    `Plex ${script}`,
    PLEX,
    `ibm-plex-sans-${script}`,
  ]),
] as [family: string, folder: string, name: string][];

const fileOf = (folder: string, name: string, weight: 400 | 700) => join(folder, `${name}-${weight}-normal.woff`);

for (const [family, folder, name] of FACES)
  Font.register({
    family,
    fonts: [{ src: fileOf(folder, name, 400) }, { src: fileOf(folder, name, 700), fontWeight: 700 }],
  });
Font.registerHyphenationCallback((word) => [word]);

/** The families of every text, for `fontFamily`. */
export const FAMILIES: string[] = FACES.map(([family]) => family);

/** Letters that some face has in both weights. */
const DRAWN: ReadonlySet<number> = new Set(
  FACES.flatMap(([, folder, name]) => {
    const sets = ([400, 700] as const).map((weight) => {
      const font = openSync(fileOf(folder, name, weight));
      return "characterSet" in font ? font.characterSet : [];
    });
    const bold = new Set(sets[1]);
    return (sets[0] as number[]).filter((code) => bold.has(code));
  }),
);

/** Substitute for letters that no face has. */
const UNDRAWN = "[?]";

/** A text as it can be drawn: signs of like meaning for some, and a visible placeholder for a run of letters that no face has. */
export function printable(text: string): string {
  let out = "";
  let undrawn = false;
  for (const letter of text.normalize("NFC").replace(/≈/g, "about").replace(/[−–—]/g, "-")) {
    const drawn = letter === "\n" || DRAWN.has(letter.codePointAt(0) as number);
    if (drawn) out += letter;
    else if (!undrawn) out += UNDRAWN;
    undrawn = !drawn;
  }
  return out;
}
