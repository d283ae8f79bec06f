import { type Dimension, findUnit, type UnitId, unitsOf } from "../units";
import type { ChannelId } from "./channels";

/** Lower case without accents, words apart: "Régime_moteur[1/min]" → "regime moteur 1 min". */
export const folded = (text: string): string =>
  text
    .replace(/([a-z])([A-Z][a-z])/g, "$1 $2")
    .normalize("NFD")
    .replace(/\p{M}/gu, "")
    .replace(/ł/gi, "l")
    .replace(/ø/gi, "o")
    .replace(/æ/gi, "ae")
    .replace(/ı/g, "i")
    .replace(/ß/g, "ss")
    .toLowerCase()
    .replace(/[^a-z0-9%]+/g, " ")
    .trim();

/** Words that make a header another thing than the live reading it looks like. */
const NOT_LIVE =
  /\b(desired|target|specified|requested|setpoint|soll\w*|consigne|objetivo|min|max|mini|maxi|maks|minimum|maximum|average|avg|mittel\w*|moyenne|media|gemiddelde|srednia|peak)\b/;

/** Words for what the ECU asks for, on folded words. */
const ASKED = /\b(asked|command\w*|desired|target|specified|requested|setpoint|soll\w*|consigne|objetivo)\b/;

/** Names of channels in English, German, French, Spanish, Italian, Dutch, Polish, Portuguese, Swedish, Danish, Czech and Turkish, on folded words. */
const RULES: readonly (readonly [ChannelId, RegExp])[] = [
  [
    "coolant",
    /\bect\b|coolant|kuhl(mittel|wasser)|refroidissement|eau moteur|refrigerante|acqua motore|koel(vloeistof|water)|chlodz|arrefecimento|agua do motor|kylv(atske|atten)|koler?vaeske|chladi|sogutma/,
  ],
  [
    "filter-pressure",
    /(filter|\bdpf\b|\bfap\b|\bgpf\b|partikelfilter).*(diff\w*|delta).*(press|druck)|(diff\w*|delta) ?(press\w*|druck)\b.*(filter|\bdpf\b|\bfap\b)|pression differentielle.*(fap|filtre)/,
  ],
  ["exhaust-pressure", /^exhaust (gas |back )?press\w*( abs\w*)?$|exhaust manifold.*press|^abgas(gegen)?druck$/],
  // One of several sensors and valves is no matter of course: those with a number or a side are chosen by hand.
  [
    "exhaust-temperature",
    /^(egt|exhaust (gas )?temp\w*|abgastemp\w*)$|exhaust.*temp.*(before|pre|upstream).*(filter|\bdpf\b|\bfap\b)/,
  ],
  ["egr", /^(command\w* )?(egr|agr)( valve)?( duty( cycle)?| command\w*)$|^command\w* (egr|agr)$/],
  ["gas-co2", /^(co2|carbon dioxide|kohlendioxid)$/],
  ["gas-co", /^(co|carbon monoxide|kohlenmonoxid)$/],
  ["gas-o2", /^(o2|oxygen|sauerstoff)$/],
  ["gas-hc", /^(hc|hydrocarbons?|kohlenwasserstoffe?)$/],
  ["gas-no", /^(nox|nitric oxide|nitrogen oxides?|stickoxide?)$/],
  ["charge-temperature", /charge (air )?temp|ladelufttemp|intake manifold temp|temp\w* (air )?suralim/],
  [
    "intake-temperature",
    /\biat\b|(intake|inlet) air temp|(ansaug)?lufttemp|temp\w*( d)? air( d)? admission|temp\w*( del)? aire|temp\w* (dell )?aria|inlaatlucht|temp\w* \w*powietrza|temp\w* zasysanego|temp\w* do ar|insug\w*luft\w* temp|insugsluft|indsugnings?luft|teplota.*vzduchu|hava\w* sicakligi/,
  ],
  [
    "rpm",
    /\brpm\b|drehzahl|\bregime\b|\bregimen\b|revoluciones|\bgiri\b|toerental|\bobroty\b|predkosc obrotowa|eng(ine)? (speed|revs)|vitesse moteur|tours moteur|\brotac(ao|oes)\b|varvtal|omdrejning|\botack|\bdevri?\b|\bdevir\b|motor hizi/,
  ],
  [
    "maf",
    /\bmaf\b|mass air ?flow|air ?flow rate|^air ?flow$|\bair mass\b|luftmass|luftmenge|debit d air|debitmetre|masse d air|(flujo|caudal)\b.*aire|masa de aire|portata aria|massa aria|debimetro|luchtmassa|(masa|przeplyw) powietrza|przeplywomierz|fluxo de massa|caudal de ar|massa de ar|luft(flode|strom)|(hmotnost|prutok|mnozstvi)\b.*vzduchu|hava (kutle|debisi)|kutlesel hava/,
  ],
  [
    "actuator-command",
    /(vane|wastegate|boost (actuator|control)|turbo actuator|\bvgt\b).*(command|duty|desired|asked|target|soll)|command\w* (vane|boost actuator|wastegate)/,
  ],
  ["actuator-position", /(vane|wastegate|boost actuator|turbo actuator|\bvgt\b).*position/],
  [
    "charge",
    /charge (air )?pressure|boost pressure|throttle inlet pressure|ladedruck|suralimentation|sobrealimentacion|sovralimentazione|laaddruk|doladowania/,
  ],
  [
    "barometer",
    /\bbaro\b|barom|ambient pressure|umgebungsdruck|luftdruck|pression atmos|presion atmos|pressione atmos|omgevingsdruk|cisnienie atmos|pressao atmos|atmosf\w*(tryck| tryk| tlak| basinc)|atmosfericky|atmosfer basinc/,
  ],
  [
    "map",
    /\bmap\b|manifold.*pressure|saugrohr|pression.*(collecteur|admission)|presion.*(colector|admision)|pressione.*collettore|inlaat(spruitstuk)?druk|spruitstukdruk|cisnienie.*(kolektor|dolot)|pressao.*(coletor|admissao)|insug\w*tryck|tryck insug|indsugnings?\w*tryk|manifoldtryk|tlak.*\b(sacim|sani)\b|manifold.*basinc/,
  ],
  [
    "loop",
    /fuel system|loop stat|closed loop|^loop$|kraftstoffsystem|lambdaregelung|(systeme|circuit) carburant|sistema( de)? combustible|sistema carburante|brandstofsysteem|ukladu paliw|^fuelsys\d?$|branslesystem|braendstofsystem|palivoveho systemu|yakit sistemi|sistema de combustivel/,
  ],
  [
    "throttle",
    /throttle|\btps\b|drosselklapp|papillon|mariposa|acelerador|farfalla|gasklep|przepustnic|^tp$|borboleta|trottel|spj(a|ae)ll|spjaeld|skrtici|kelebe/,
  ],
  [
    "load",
    /calculated load|engine load|\bload\b|motorlast|berechnete last|charge (moteur|calculee)|\bcarga\b|\bcarico\b|belasting|obciazenie|belastning|zatizeni|motor yuku|^load pct$/,
  ],
  [
    "speed",
    /vehicle speed|\bvss\b|^speed$|geschwindigkeit|vitesse vehicule|^vitesse$|velocidad|velocita|voertuigsnelheid|predkosc pojazdu|hastighe[td]|rychlost|arac hizi/,
  ],
  [
    "time",
    /^(time( stamp)?|timestamp|elapsed( time)?|seconds|zeit(stempel)?|uhrzeit|temps|heure|horodatage|tiempo|hora|tempo|ora|tijd(stip)?|czas|tid(punkt|spunkt)?|cas|zaman|saat|clock|t)$/,
  ],
];

const SHORT =
  /\b(stft|shrtft|sft|short|kurz\w*|court|corto|breve|korte?|kortsi[kg]t\w*|krotk\w*|curto|kratkodob\w*|kisa)(?=\b|\d)/;
const LONG = /\b(ltft|longft|lft|longo?|lang(e|zeit\w*|si[kg]t\w*)?|largo|lungo|dlug\w*|dlouhodob\w*|uzun)(?=\b|\d)/;
const TOTAL = /\b(total|gesamt\w*|totale|totaal|calkowita)\b/;
const TRIM =
  /trim|\bft(?=\b|\d)|stft|ltft|shrtft|longft|\bsft\b|\blft\b|anpassung|korrektur|correction|richesse|ajuste|correccion|correzione|correctie|korekta|gemisch|korrigering|korrektion|korekce|correcao|duzeltme|yakit ayari/;
const BANK =
  /\b(?:b|bk|bank|bnk|banc|banco|bancata|bancada|banka|zylinderbank|cilinderbank|cylinderbank|rangee|rzad|rada|sira|blok)\s?([12])\b|\bb([12])s[12]\b|(?:ft|trim)\s?([12])\b|\b([12])$|[a-z]([12])$/;
const BANK_WORDS: Readonly<Record<string, 1 | 2>> = { one: 1, two: 2, eins: 1, zwei: 2, un: 1, deux: 2, uno: 1, dos: 2, due: 2 };

/** Bank named in a header, by number or word; the first where none is named. */
function bankOf(name: string): 1 | 2 {
  const m = BANK.exec(name);
  const digit = m?.slice(1).find(Boolean);
  if (digit) return Number(digit) as 1 | 2;
  return BANK_WORDS[/\bban\w* (\w+)\b/.exec(name)?.[1] ?? ""] ?? 1;
}

/** SAE J1979 service 01 request codes. */
const REQUESTS: Readonly<Record<string, ChannelId>> = {
  "03": "loop",
  "04": "load",
  "05": "coolant",
  "06": "short-trim-1",
  "07": "long-trim-1",
  "08": "short-trim-2",
  "09": "long-trim-2",
  "0b": "map",
  "0c": "rpm",
  "0d": "speed",
  "0f": "intake-temperature",
  "10": "maf",
  "11": "throttle",
  "2c": "egr",
  "2e": "purge",
  "2f": "fuel-level",
  "32": "tank-pressure",
  "33": "barometer",
};
const REQUEST = /^(?:pid|mode|service|sid|obd)?\s*(?:0?x|\$)?\s*(?:01)?[\s:._-]*(?:0x|\$)?([0-9a-f]{2})$/i;

/** Names that only the standard gives (SAE J1979): a log that has one is written in its words, and in its units. */
const STANDARD = /^(shrtft|longft)\d{1,2}$|^load_pct$|^fuelsys\d$|^(spark|timing)adv$/i;
/** Whether a header is a request code, or a name that only the standard gives. */
export const inStandardWords = (header: string): boolean => {
  const name = header.trim();
  return STANDARD.test(name) || REQUESTS[REQUEST.exec(name)?.[1]?.toLowerCase() ?? ""] !== undefined;
};

/** The channel that a header's name speaks of, without its unit; undefined where no rule knows it. */
export function channelOf(name: string): { readonly channel: ChannelId; readonly live: boolean } | undefined {
  const request = REQUESTS[REQUEST.exec(name.trim())?.[1]?.toLowerCase() ?? ""];
  if (request) return { channel: request, live: true };
  // "No" counts rows; written as the gas is, it is the gas.
  if (name.trim() === "NO") return { channel: "gas-no", live: true };
  const words = folded(name);
  const live = !NOT_LIVE.test(words);
  if (TRIM.test(words)) {
    const bank = bankOf(words);
    if (SHORT.test(words)) return { channel: `short-trim-${bank}`, live };
    if (LONG.test(words)) return { channel: `long-trim-${bank}`, live };
    if (TOTAL.test(words)) return { channel: `total-trim-${bank}`, live };
  }
  const rule = RULES.find(([, pattern]) => pattern.test(words));
  // What is asked for is a reading of its own where a check holds the delivered against it.
  if (rule?.[0] === "charge" && ASKED.test(words)) return { channel: "charge-asked", live: true };
  return rule && { channel: rule[0], live: live || rule[0] === "actuator-command" };
}

/** Spellings of units that are not their own names, folded. */
const SPELLINGS: Readonly<Record<string, UnitId | "%" | "rpm" | "km/h" | "mph" | "s" | "ms" | "min">> = {
  "g s": "g/s",
  "g sec": "g/s",
  "gm s": "g/s",
  "gm sec": "g/s",
  "gram s": "g/s",
  "grams s": "g/s",
  "gram sec": "g/s",
  "grams sec": "g/s",
  gps: "g/s",
  "kg h": "kg/h",
  "kg hr": "kg/h",
  "kg hour": "kg/h",
  "lb min": "lb/min",
  "lb m": "lb/min",
  kpa: "kPa",
  kilopascal: "kPa",
  hpa: "hPa",
  mbar: "mbar",
  bar: "bar",
  psi: "psi",
  psia: "psi",
  "lb in2": "psi",
  inhg: "inHg",
  "in hg": "inHg",
  "deg c": "°C",
  "degrees c": "°C",
  degc: "°C",
  c: "°C",
  celsius: "°C",
  "deg f": "°F",
  "degrees f": "°F",
  degf: "°F",
  f: "°F",
  fahrenheit: "°F",
  pct: "%",
  percent: "%",
  "%": "%",
  rpm: "rpm",
  "1 min": "rpm",
  "u min": "rpm",
  "min 1": "rpm",
  "r min": "rpm",
  "km h": "km/h",
  kph: "km/h",
  mph: "mph",
  s: "s",
  sec: "s",
  seconds: "s",
  ms: "ms",
  min: "min",
};

/** A unit as anybody writes it. */
export function unitSpelt(text: string): UnitId | "%" | "rpm" | "km/h" | "mph" | "s" | "ms" | "min" | undefined {
  const plain = text.trim().replace(/\s*(abs|absolute)\.?$/i, "");
  return SPELLINGS[folded(plain)] ?? findUnit(plain);
}

const BRACKETS = /[([{]\s*([^)\]}]*)\s*[)\]}]/g;
/** Modules and places that a bracket may name. */
const WHOSE = /^(ecu|ecm|pcm|tcm|obd-?2?|sae|b[12](s[1-4])?|bank.*)$/i;
/** What stands in brackets and is no unit: an acronym that says the name once more, a module, a bank. Anything else may be a unit. */
const explains = (inside: string) =>
  WHOSE.test(inside.trim()) || (/^[A-Z0-9_]{2,8}$/.test(inside.trim()) && channelOf(inside) !== undefined);

/** Splits a header into its name and its unit: from the units row, in brackets, after a comma, or as its last words. */
export function splitUnit(header: string, unitCell: string | undefined): { name: string; unitText: string } {
  const text = header.trim();
  const brackets = [...text.matchAll(BRACKETS)];
  const bracket = brackets.findLast(([, inside]) => unitSpelt(inside ?? ""));
  const without = (found: string) => text.replace(found, " ").trim();
  if (unitCell?.trim())
    return { name: bracket ? without(bracket[0]) : text, unitText: unitCell.trim().replace(/^[([{]|[)\]}]$/g, "") };
  const other = bracket ?? brackets.findLast(([, inside = ""]) => !/bank|b[12]/i.test(inside) && !explains(inside));
  if (other) {
    // "Speed (RPM) 1/min": the acronym of a unit, and the unit.
    const rest = splitUnit(without(other[0]), undefined);
    return rest.unitText ? rest : { name: without(other[0]), unitText: (other[1] ?? "").trim() };
  }
  const comma = /^(.*?),\s*(.+)$/.exec(text);
  if (comma && unitSpelt(comma[2] ?? "")) return { name: comma[1] ?? "", unitText: comma[2] ?? "" };
  const words = text.split(/[\s_]+/);
  for (const count of [3, 2, 1]) {
    if (words.length <= count) continue;
    const tail = words.slice(-count).join(" ");
    const name = words.slice(0, -count).join(" ");
    const unit = unitSpelt(tail);
    if (!unit || (tail.length === 1 && tail !== "%" && !takesLetter(name, unit))) continue;
    if (unit === "min" || folded(tail) === "rpm") continue;
    return { name, unitText: tail };
  }
  return { name: text, unitText: "" };
}

/** A single letter is a unit only where the name before it is of that kind. */
function takesLetter(name: string, unit: string): boolean {
  const channel = channelOf(name)?.channel;
  if (unit === "°C" || unit === "°F")
    return channel === "coolant" || channel === "intake-temperature" || channel === "charge-temperature";
  return unit === "s" && channel === "time";
}

/** The unit of a text if it measures what is asked. */
export function unitIn(text: string, dimension: Dimension): UnitId | undefined {
  const unit = unitSpelt(text);
  return unit && (unitsOf(dimension) as readonly string[]).includes(unit) ? (unit as UnitId) : undefined;
}
