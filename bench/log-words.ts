/**
 * Names by which scan tools of seven languages call the same channels, and how they write units, banks, times and numbers: the words
 * that made-up logs are drawn from. Written before anything that reads them.
 */
export type Language = "en" | "de" | "fr" | "es" | "it" | "nl" | "pl";
export type Logged =
  | "rpm"
  | "maf"
  | "map"
  | "coolant"
  | "iat"
  | "short"
  | "long"
  | "loop"
  | "throttle"
  | "baro"
  | "speed"
  | "load";

/** Names by channel and language; trims without their bank. */
export const NAMES: Readonly<Record<Logged, Readonly<Record<Language, readonly string[]>>>> = {
  rpm: {
    en: ["Engine RPM", "RPM", "Engine speed", "Eng Speed", "Engine revs"],
    de: ["Motordrehzahl", "Drehzahl", "Motor Drehzahl"],
    fr: ["Régime moteur", "Régime", "Vitesse moteur", "Tours moteur"],
    es: ["RPM del motor", "Régimen del motor", "Revoluciones del motor"],
    it: ["Giri motore", "Regime motore", "Numero giri motore"],
    nl: ["Motortoerental", "Toerental", "Motor toerental"],
    pl: ["Obroty silnika", "Prędkość obrotowa silnika", "Obroty"],
  },
  maf: {
    en: ["Mass Air Flow", "MAF", "MAF Sensor", "Air flow rate from MAF", "Mass airflow rate"],
    de: ["Luftmasse", "Luftmassenmesser", "Luftmassenstrom", "Ansaugluftmasse"],
    fr: ["Débit d'air massique", "Débitmètre d'air", "Masse d'air"],
    es: ["Flujo de masa de aire", "Caudal de aire", "Masa de aire"],
    it: ["Portata aria", "Massa aria aspirata", "Debimetro"],
    nl: ["Luchtmassa", "Luchtmassameter", "Luchtmassastroom"],
    pl: ["Masa powietrza", "Przepływ powietrza", "Przepływomierz powietrza"],
  },
  map: {
    en: ["Intake Manifold Absolute Pressure", "MAP", "Manifold pressure", "Intake manifold pressure"],
    de: ["Saugrohrdruck", "Ansaugrohrdruck", "Saugrohr Absolutdruck"],
    fr: ["Pression collecteur", "Pression absolue collecteur admission", "Pression d'admission"],
    es: ["Presión del colector de admisión", "Presión absoluta del colector", "Presión colector"],
    it: ["Pressione collettore", "Pressione assoluta collettore aspirazione"],
    nl: ["Inlaatspruitstukdruk", "Inlaatdruk", "Spruitstukdruk absoluut"],
    pl: ["Ciśnienie w kolektorze dolotowym", "Ciśnienie kolektora", "Ciśnienie bezwzględne kolektora"],
  },
  coolant: {
    en: ["Engine Coolant Temperature", "ECT", "Coolant Temp", "Coolant temperature", "Engine coolant temp"],
    de: ["Kühlmitteltemperatur", "Kühlwassertemperatur", "Motortemperatur Kühlmittel"],
    fr: ["Température liquide de refroidissement", "Température eau moteur", "Temp. liquide refroidissement"],
    es: ["Temperatura del refrigerante", "Temperatura refrigerante motor", "Temp. refrigerante"],
    it: ["Temperatura liquido refrigerante", "Temperatura acqua motore"],
    nl: ["Koelvloeistoftemperatuur", "Koelwatertemperatuur", "Temperatuur koelvloeistof"],
    pl: ["Temperatura płynu chłodzącego", "Temperatura cieczy chłodzącej"],
  },
  iat: {
    en: ["Intake Air Temperature", "IAT", "Intake air temp", "Inlet air temperature"],
    de: ["Ansauglufttemperatur", "Lufttemperatur Ansaugung"],
    fr: ["Température air admission", "Température d'air d'admission"],
    es: ["Temperatura del aire de admisión", "Temperatura aire admisión"],
    it: ["Temperatura aria aspirata", "Temperatura aria aspirazione"],
    nl: ["Inlaatluchttemperatuur", "Temperatuur inlaatlucht"],
    pl: ["Temperatura powietrza dolotowego", "Temperatura zasysanego powietrza"],
  },
  short: {
    en: ["Short Term Fuel Trim", "STFT", "Short term trim", "Short FT", "SHRTFT"],
    de: ["Kurzzeit-Kraftstoffanpassung", "Kurzzeitkorrektur", "Kurzzeit Gemischanpassung"],
    fr: ["Correction carburant court terme", "Correction court terme", "Richesse court terme"],
    es: ["Ajuste de combustible a corto plazo", "Ajuste corto plazo", "Corrección combustible corto plazo"],
    it: ["Correzione carburante breve termine", "Correzione miscela a breve termine"],
    nl: ["Brandstofcorrectie korte termijn", "Korte termijn brandstoftrim"],
    pl: ["Korekta paliwa krótkoterminowa", "Krótkoterminowa korekta paliwa"],
  },
  long: {
    en: ["Long Term Fuel Trim", "LTFT", "Long term trim", "Long FT", "LONGFT"],
    de: ["Langzeit-Kraftstoffanpassung", "Langzeitkorrektur", "Langzeit Gemischanpassung"],
    fr: ["Correction carburant long terme", "Correction long terme", "Richesse long terme"],
    es: ["Ajuste de combustible a largo plazo", "Ajuste largo plazo", "Corrección combustible largo plazo"],
    it: ["Correzione carburante lungo termine", "Correzione miscela a lungo termine"],
    nl: ["Brandstofcorrectie lange termijn", "Lange termijn brandstoftrim"],
    pl: ["Korekta paliwa długoterminowa", "Długoterminowa korekta paliwa"],
  },
  loop: {
    en: ["Fuel System Status", "Fuel system 1 status", "Loop status"],
    de: ["Status Kraftstoffsystem", "Lambdaregelung"],
    fr: ["État système carburant", "Statut circuit carburant"],
    es: ["Estado del sistema de combustible"],
    it: ["Stato sistema carburante"],
    nl: ["Status brandstofsysteem"],
    pl: ["Stan układu paliwowego"],
  },
  throttle: {
    en: ["Throttle Position", "TPS", "Throttle", "Absolute throttle position"],
    de: ["Drosselklappenstellung", "Drosselklappe"],
    fr: ["Position papillon", "Papillon des gaz"],
    es: ["Posición del acelerador", "Posición mariposa"],
    it: ["Posizione farfalla", "Farfalla"],
    nl: ["Gasklepstand", "Gasklep"],
    pl: ["Położenie przepustnicy", "Przepustnica"],
  },
  baro: {
    en: ["Barometric Pressure", "BARO", "Ambient pressure"],
    de: ["Umgebungsdruck", "Luftdruck Umgebung"],
    fr: ["Pression barométrique", "Pression atmosphérique"],
    es: ["Presión barométrica", "Presión atmosférica"],
    it: ["Pressione barometrica", "Pressione atmosferica"],
    nl: ["Barometerdruk", "Omgevingsdruk"],
    pl: ["Ciśnienie barometryczne", "Ciśnienie atmosferyczne"],
  },
  speed: {
    en: ["Vehicle Speed", "VSS", "Speed"],
    de: ["Fahrzeuggeschwindigkeit", "Geschwindigkeit"],
    fr: ["Vitesse véhicule", "Vitesse"],
    es: ["Velocidad del vehículo"],
    it: ["Velocità veicolo"],
    nl: ["Voertuigsnelheid"],
    pl: ["Prędkość pojazdu"],
  },
  load: {
    en: ["Calculated Load", "Engine Load", "Calculated load value"],
    de: ["Motorlast", "Berechnete Last"],
    fr: ["Charge moteur", "Charge calculée"],
    es: ["Carga del motor", "Carga calculada"],
    it: ["Carico motore", "Carico calcolato"],
    nl: ["Motorbelasting"],
    pl: ["Obciążenie silnika"],
  },
};

export const TIME_NAMES: Readonly<Record<Language, readonly string[]>> = {
  en: ["Time", "Elapsed time", "Timestamp", "Seconds"],
  de: ["Zeit", "Zeitstempel", "Uhrzeit"],
  fr: ["Temps", "Heure", "Horodatage"],
  es: ["Tiempo", "Hora"],
  it: ["Tempo", "Ora"],
  nl: ["Tijd", "Tijdstip"],
  pl: ["Czas"],
};

/** Request codes of SAE J1979, service 01. */
export const PIDS: Readonly<Record<Exclude<Logged, "short" | "long">, string>> = {
  rpm: "0C",
  maf: "10",
  map: "0B",
  coolant: "05",
  iat: "0F",
  loop: "03",
  throttle: "11",
  baro: "33",
  speed: "0D",
  load: "04",
};
export const TRIM_PIDS = { short: ["06", "08"], long: ["07", "09"] } as const;

/** Ways to write a bank behind a trim's name. */
export const BANKS: Readonly<Record<Language, readonly ((bank: 1 | 2) => string)[]>> = {
  en: [(b) => ` Bank ${b}`, (b) => ` B${b}`, (b) => ` (Bank ${b})`, (b) => `${b}`, (b) => ` bk${b}`, (b) => ` - Bank ${b}`],
  de: [(b) => ` Bank ${b}`, (b) => ` Bank${b}`, (b) => ` Zylinderbank ${b}`],
  fr: [(b) => ` banc ${b}`, (b) => ` rangée ${b}`, (b) => ` B${b}`],
  es: [(b) => ` banco ${b}`, (b) => ` Banco${b}`],
  it: [(b) => ` bancata ${b}`, (b) => ` banco ${b}`],
  nl: [(b) => ` bank ${b}`, (b) => ` cilinderbank ${b}`],
  pl: [(b) => ` bank ${b}`, (b) => ` rząd ${b}`],
};

/** Spellings of the units a log may be in, with the factor and offset from the unit the truth is made in. */
export const UNIT_SPELLINGS: Readonly<Record<string, { readonly words: readonly string[]; readonly of: (x: number) => number }>> =
  {
    "g/s": { words: ["g/s", "g/sec", "gm/s", "g_s", "gps"], of: (x) => x },
    "kg/h": { words: ["kg/h", "kg/hr", "kg_h"], of: (x) => x * 3.6 },
    "lb/min": { words: ["lb/min", "lb/m", "lb_min"], of: (x) => x * 0.132277 },
    kPa: { words: ["kPa", "kpa", "kPa abs"], of: (x) => x },
    hPa: { words: ["hPa", "mbar"], of: (x) => x * 10 },
    inHg: { words: ["inHg", "in Hg", "in_Hg"], of: (x) => x / 3.386389 },
    psi: { words: ["psi", "PSI"], of: (x) => x / 6.894757 },
    "°C": { words: ["°C", "C", "deg C", "degC", "deg_C"], of: (x) => x },
    "°F": { words: ["°F", "F", "deg F", "degF", "deg_F"], of: (x) => x * 1.8 + 32 },
  };

/** Words that stand before the name of a channel that is not the live reading. */
export const BESIDE: Readonly<Record<Language, readonly [string, string]>> = {
  en: ["Min", "Max"],
  de: ["Min", "Max"],
  fr: ["Mini", "Maxi"],
  es: ["Mín", "Máx"],
  it: ["Min", "Max"],
  nl: ["Min", "Max"],
  pl: ["Min", "Maks"],
};

/** Headers of a log that writes one reading a row: time, name, value, unit. */
export const LONG_HEADERS: Readonly<Record<Language, readonly [string, string, string]>> = {
  en: ["Parameter", "Value", "Unit"],
  de: ["Messwert", "Wert", "Einheit"],
  fr: ["Paramètre", "Valeur", "Unité"],
  es: ["Parámetro", "Valor", "Unidad"],
  it: ["Parametro", "Valore", "Unità"],
  nl: ["Parameter", "Waarde", "Eenheid"],
  pl: ["Parametr", "Wartość", "Jednostka"],
};
