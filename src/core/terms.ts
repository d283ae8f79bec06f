import type { HouseMethods } from "./shop/settings";

export type English = HouseMethods["english"];

/** Words of the interface that an American shop says otherwise. */
const AMERICAN: Readonly<Record<string, string>> = {
  petrol: "gasoline",
  bonnet: "hood",
  windscreen: "windshield",
  litre: "liter",
  litres: "liters",
  metre: "meter",
  metres: "meters",
  centre: "center",
};
const WORDS = new RegExp(`\\b(${Object.keys(AMERICAN).join("|")})\\b`, "gi");

/** A text of ours in the English that the shop speaks; what somebody typed is never put through it. */
export function inEnglish(text: string, english: English): string {
  if (english === "british") return text;
  return text.replace(WORDS, (word) => {
    const said = AMERICAN[word.toLowerCase()] as string;
    return /^\p{Lu}/u.test(word) ? said.charAt(0).toUpperCase() + said.slice(1) : said;
  });
}
