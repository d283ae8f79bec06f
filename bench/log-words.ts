/**
 * Names by which scan tools of twelve languages call the same channels, and how they write units, banks, times and numbers: the words
 * that made-up logs are drawn from. Written before anything that reads them.
 */
export type Language = "en" | "de" | "fr" | "es" | "it" | "nl" | "pl" | "pt" | "sv" | "da" | "cs" | "tr";
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
    pt: ["Rotação do motor", "Rotações do motor", "RPM do motor"],
    sv: ["Motorvarvtal", "Varvtal", "Motorns varvtal"],
    da: ["Motoromdrejninger", "Motorens omdrejningstal", "Omdrejningstal"],
    cs: ["Otáčky motoru", "Otáčky"],
    tr: ["Motor devri", "Motor hızı", "Devir"],
  },
  maf: {
    en: ["Mass Air Flow", "MAF", "MAF Sensor", "Air flow rate from MAF", "Mass airflow rate"],
    de: ["Luftmasse", "Luftmassenmesser", "Luftmassenstrom", "Ansaugluftmasse"],
    fr: ["Débit d'air massique", "Débitmètre d'air", "Masse d'air"],
    es: ["Flujo de masa de aire", "Caudal de aire", "Masa de aire"],
    it: ["Portata aria", "Massa aria aspirata", "Debimetro"],
    nl: ["Luchtmassa", "Luchtmassameter", "Luchtmassastroom"],
    pl: ["Masa powietrza", "Przepływ powietrza", "Przepływomierz powietrza"],
    pt: ["Fluxo de massa de ar", "Caudal de ar", "Massa de ar"],
    sv: ["Luftmassa", "Luftmassemätare", "Luftflöde"],
    da: ["Luftmasse", "Luftmassemåler", "Luftstrøm"],
    cs: ["Hmotnost vzduchu", "Průtok vzduchu", "Množství nasávaného vzduchu"],
    tr: ["Hava kütle akışı", "Hava debisi", "Kütlesel hava akışı"],
  },
  map: {
    en: ["Intake Manifold Absolute Pressure", "MAP", "Manifold pressure", "Intake manifold pressure"],
    de: ["Saugrohrdruck", "Ansaugrohrdruck", "Saugrohr Absolutdruck"],
    fr: ["Pression collecteur", "Pression absolue collecteur admission", "Pression d'admission"],
    es: ["Presión del colector de admisión", "Presión absoluta del colector", "Presión colector"],
    it: ["Pressione collettore", "Pressione assoluta collettore aspirazione"],
    nl: ["Inlaatspruitstukdruk", "Inlaatdruk", "Spruitstukdruk absoluut"],
    pl: ["Ciśnienie w kolektorze dolotowym", "Ciśnienie kolektora", "Ciśnienie bezwzględne kolektora"],
    pt: ["Pressão do coletor de admissão", "Pressão absoluta do coletor"],
    sv: ["Insugningstryck", "Insugsrörstryck", "Absolut tryck insugningsrör"],
    da: ["Indsugningstryk", "Manifoldtryk", "Indsugningsmanifoldtryk"],
    cs: ["Tlak v sacím potrubí", "Absolutní tlak sání"],
    tr: ["Emme manifoldu basıncı", "Manifold mutlak basıncı"],
  },
  coolant: {
    en: ["Engine Coolant Temperature", "ECT", "Coolant Temp", "Coolant temperature", "Engine coolant temp"],
    de: ["Kühlmitteltemperatur", "Kühlwassertemperatur", "Motortemperatur Kühlmittel"],
    fr: ["Température liquide de refroidissement", "Température eau moteur", "Temp. liquide refroidissement"],
    es: ["Temperatura del refrigerante", "Temperatura refrigerante motor", "Temp. refrigerante"],
    it: ["Temperatura liquido refrigerante", "Temperatura acqua motore"],
    nl: ["Koelvloeistoftemperatuur", "Koelwatertemperatuur", "Temperatuur koelvloeistof"],
    pl: ["Temperatura płynu chłodzącego", "Temperatura cieczy chłodzącej"],
    pt: ["Temperatura do líquido de arrefecimento", "Temperatura da água do motor"],
    sv: ["Kylvätsketemperatur", "Kylvattentemperatur"],
    da: ["Kølevæsketemperatur", "Kølervæsketemperatur"],
    cs: ["Teplota chladicí kapaliny", "Teplota chladiva"],
    tr: ["Soğutma suyu sıcaklığı", "Soğutma sıvısı sıcaklığı"],
  },
  iat: {
    en: ["Intake Air Temperature", "IAT", "Intake air temp", "Inlet air temperature"],
    de: ["Ansauglufttemperatur", "Lufttemperatur Ansaugung"],
    fr: ["Température air admission", "Température d'air d'admission"],
    es: ["Temperatura del aire de admisión", "Temperatura aire admisión"],
    it: ["Temperatura aria aspirata", "Temperatura aria aspirazione"],
    nl: ["Inlaatluchttemperatuur", "Temperatuur inlaatlucht"],
    pl: ["Temperatura powietrza dolotowego", "Temperatura zasysanego powietrza"],
    pt: ["Temperatura do ar de admissão"],
    sv: ["Insugningsluftens temperatur", "Insugsluft temperatur"],
    da: ["Indsugningsluftens temperatur", "Indsugningslufttemperatur"],
    cs: ["Teplota nasávaného vzduchu", "Teplota vzduchu v sání"],
    tr: ["Emme havası sıcaklığı", "Emilen hava sıcaklığı"],
  },
  short: {
    en: ["Short Term Fuel Trim", "STFT", "Short term trim", "Short FT", "SHRTFT"],
    de: ["Kurzzeit-Kraftstoffanpassung", "Kurzzeitkorrektur", "Kurzzeit Gemischanpassung"],
    fr: ["Correction carburant court terme", "Correction court terme", "Richesse court terme"],
    es: ["Ajuste de combustible a corto plazo", "Ajuste corto plazo", "Corrección combustible corto plazo"],
    it: ["Correzione carburante breve termine", "Correzione miscela a breve termine"],
    nl: ["Brandstofcorrectie korte termijn", "Korte termijn brandstoftrim"],
    pl: ["Korekta paliwa krótkoterminowa", "Krótkoterminowa korekta paliwa"],
    pt: ["Ajuste de combustível de curto prazo", "Correção de combustível curto prazo"],
    sv: ["Bränslekorrigering kort sikt", "Kortsiktig bränsletrim"],
    da: ["Brændstofkorrektion kort sigt", "Kortsigtet brændstoftrim"],
    cs: ["Krátkodobá korekce paliva", "Krátkodobá korekce směsi"],
    tr: ["Kısa süreli yakıt düzeltmesi", "Kısa vadeli yakıt ayarı"],
  },
  long: {
    en: ["Long Term Fuel Trim", "LTFT", "Long term trim", "Long FT", "LONGFT"],
    de: ["Langzeit-Kraftstoffanpassung", "Langzeitkorrektur", "Langzeit Gemischanpassung"],
    fr: ["Correction carburant long terme", "Correction long terme", "Richesse long terme"],
    es: ["Ajuste de combustible a largo plazo", "Ajuste largo plazo", "Corrección combustible largo plazo"],
    it: ["Correzione carburante lungo termine", "Correzione miscela a lungo termine"],
    nl: ["Brandstofcorrectie lange termijn", "Lange termijn brandstoftrim"],
    pl: ["Korekta paliwa długoterminowa", "Długoterminowa korekta paliwa"],
    pt: ["Ajuste de combustível de longo prazo", "Correção de combustível longo prazo"],
    sv: ["Bränslekorrigering lång sikt", "Långsiktig bränsletrim"],
    da: ["Brændstofkorrektion lang sigt", "Langsigtet brændstoftrim"],
    cs: ["Dlouhodobá korekce paliva", "Dlouhodobá korekce směsi"],
    tr: ["Uzun süreli yakıt düzeltmesi", "Uzun vadeli yakıt ayarı"],
  },
  loop: {
    en: ["Fuel System Status", "Fuel system 1 status", "Loop status"],
    de: ["Status Kraftstoffsystem", "Lambdaregelung"],
    fr: ["État système carburant", "Statut circuit carburant"],
    es: ["Estado del sistema de combustible"],
    it: ["Stato sistema carburante"],
    nl: ["Status brandstofsysteem"],
    pl: ["Stan układu paliwowego"],
    pt: ["Estado do sistema de combustível"],
    sv: ["Bränslesystemets status"],
    da: ["Brændstofsystemets status"],
    cs: ["Stav palivového systému"],
    tr: ["Yakıt sistemi durumu"],
  },
  throttle: {
    en: ["Throttle Position", "TPS", "Throttle", "Absolute throttle position"],
    de: ["Drosselklappenstellung", "Drosselklappe"],
    fr: ["Position papillon", "Papillon des gaz"],
    es: ["Posición del acelerador", "Posición mariposa"],
    it: ["Posizione farfalla", "Farfalla"],
    nl: ["Gasklepstand", "Gasklep"],
    pl: ["Położenie przepustnicy", "Przepustnica"],
    pt: ["Posição da borboleta", "Posição do acelerador"],
    sv: ["Trottelläge", "Gasspjällsläge"],
    da: ["Gasspjældsstilling", "Spjældposition"],
    cs: ["Poloha škrticí klapky"],
    tr: ["Gaz kelebeği konumu"],
  },
  baro: {
    en: ["Barometric Pressure", "BARO", "Ambient pressure"],
    de: ["Umgebungsdruck", "Luftdruck Umgebung"],
    fr: ["Pression barométrique", "Pression atmosphérique"],
    es: ["Presión barométrica", "Presión atmosférica"],
    it: ["Pressione barometrica", "Pressione atmosferica"],
    nl: ["Barometerdruk", "Omgevingsdruk"],
    pl: ["Ciśnienie barometryczne", "Ciśnienie atmosferyczne"],
    pt: ["Pressão barométrica", "Pressão atmosférica"],
    sv: ["Barometertryck", "Atmosfärstryck"],
    da: ["Barometertryk", "Atmosfærisk tryk"],
    cs: ["Barometrický tlak", "Atmosférický tlak"],
    tr: ["Barometrik basınç", "Atmosfer basıncı"],
  },
  speed: {
    en: ["Vehicle Speed", "VSS", "Speed"],
    de: ["Fahrzeuggeschwindigkeit", "Geschwindigkeit"],
    fr: ["Vitesse véhicule", "Vitesse"],
    es: ["Velocidad del vehículo"],
    it: ["Velocità veicolo"],
    nl: ["Voertuigsnelheid"],
    pl: ["Prędkość pojazdu"],
    pt: ["Velocidade do veículo"],
    sv: ["Fordonshastighet"],
    da: ["Køretøjets hastighed"],
    cs: ["Rychlost vozidla"],
    tr: ["Araç hızı"],
  },
  load: {
    en: ["Calculated Load", "Engine Load", "Calculated load value"],
    de: ["Motorlast", "Berechnete Last"],
    fr: ["Charge moteur", "Charge calculée"],
    es: ["Carga del motor", "Carga calculada"],
    it: ["Carico motore", "Carico calcolato"],
    nl: ["Motorbelasting"],
    pl: ["Obciążenie silnika"],
    pt: ["Carga do motor", "Carga calculada"],
    sv: ["Motorbelastning"],
    da: ["Motorbelastning"],
    cs: ["Zatížení motoru"],
    tr: ["Motor yükü"],
  },
};

/** Acronyms of the standards (SAE J1930, J1979), which name no unit since the standard fixes it; trims with their bank. */
export const ACRONYMS: Readonly<Record<Exclude<Logged, "short" | "long">, string>> & {
  readonly short: (bank: 1 | 2) => string;
  readonly long: (bank: 1 | 2) => string;
} = {
  rpm: "RPM",
  maf: "MAF",
  map: "MAP",
  coolant: "ECT",
  iat: "IAT",
  loop: "FUELSYS1",
  throttle: "TP",
  baro: "BARO",
  speed: "VSS",
  load: "LOAD_PCT",
  short: (bank) => `SHRTFT${bank}`,
  long: (bank) => `LONGFT${bank}`,
};

/** Acronyms in brackets behind a name, which are no unit. */
export const BRACKETED: Readonly<Partial<Record<Logged, string>>> = {
  rpm: "RPM",
  maf: "MAF",
  map: "MAP",
  coolant: "ECT",
  iat: "IAT",
  baro: "BARO",
  speed: "VSS",
};

export const TIME_NAMES: Readonly<Record<Language, readonly string[]>> = {
  en: ["Time", "Elapsed time", "Timestamp", "Seconds"],
  de: ["Zeit", "Zeitstempel", "Uhrzeit"],
  fr: ["Temps", "Heure", "Horodatage"],
  es: ["Tiempo", "Hora"],
  it: ["Tempo", "Ora"],
  nl: ["Tijd", "Tijdstip"],
  pl: ["Czas"],
  pt: ["Tempo", "Hora"],
  sv: ["Tid", "Tidpunkt"],
  da: ["Tid", "Tidspunkt"],
  cs: ["Čas"],
  tr: ["Zaman", "Saat"],
};

export const DATE_NAMES: Readonly<Record<Language, string>> = {
  en: "Date",
  de: "Datum",
  fr: "Date",
  es: "Fecha",
  it: "Data",
  nl: "Datum",
  pl: "Data",
  pt: "Data",
  sv: "Datum",
  da: "Dato",
  cs: "Datum",
  tr: "Tarih",
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
  pt: [(b) => ` banco ${b}`, (b) => ` bancada ${b}`],
  sv: [(b) => ` bank ${b}`, (b) => ` cylinderbank ${b}`],
  da: [(b) => ` bank ${b}`],
  cs: [(b) => ` řada ${b}`, (b) => ` banka ${b}`],
  tr: [(b) => ` sıra ${b}`, (b) => ` blok ${b}`],
};

/** Spellings of the units a log may be in, with the factor and offset from the unit the truth is made in. */
export const UNIT_SPELLINGS: Readonly<Record<string, { readonly words: readonly string[]; readonly of: (x: number) => number }>> =
  {
    "g/s": { words: ["g/s", "g/sec", "gm/s", "gm/sec", "grams/s", "grams/sec", "gram/s", "g_s", "gps"], of: (x) => x },
    "kg/h": { words: ["kg/h", "kg/hr", "kg/hour", "kg_h"], of: (x) => x * 3.6 },
    "lb/min": { words: ["lb/min", "lb/m", "lb_min"], of: (x) => x * 0.132277 },
    kPa: { words: ["kPa", "kpa", "kPa abs", "kilopascal"], of: (x) => x },
    hPa: { words: ["hPa", "mbar"], of: (x) => x * 10 },
    inHg: { words: ["inHg", "in Hg", "in_Hg", "in. Hg"], of: (x) => x / 3.386389 },
    psi: { words: ["psi", "PSI", "psia", "lb/in2"], of: (x) => x / 6.894757 },
    "°C": { words: ["°C", "C", "deg C", "degC", "deg_C", "º C", "Celsius", "degrees C"], of: (x) => x },
    "°F": { words: ["°F", "F", "deg F", "degF", "deg_F", "Fahrenheit", "degrees F"], of: (x) => x * 1.8 + 32 },
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
  pt: ["Mín", "Máx"],
  sv: ["Min", "Max"],
  da: ["Min", "Maks"],
  cs: ["Min", "Max"],
  tr: ["Min", "Maks"],
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
  pt: ["Parâmetro", "Valor", "Unidade"],
  sv: ["Parameter", "Värde", "Enhet"],
  da: ["Parameter", "Værdi", "Enhed"],
  cs: ["Parametr", "Hodnota", "Jednotka"],
  tr: ["Parametre", "Değer", "Birim"],
};
