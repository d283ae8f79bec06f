import { expect, it } from "vitest";
import { shownStrings } from "../scripts/strings";

/** Words that no technician says to a colleague, each with what stands for it. */
const BANNED: readonly (readonly [RegExp, string])[] = [
  [/\bled back\b/i, "EGR"],
  [/\b1\/min\b/, "rpm"],
  [/only some of them|ask for less|page before/i, "filter, clear filter, previous page"],
  [/whom to call/i, "follow-ups"],
  [/\breckoner?\b|\breckoned\b/i, "calculator"],
  [/take in \(a person\)|typed by whose it is/i, "add, PIN (they type it)"],
  [/it is off: list it|all \S+ back on/i, "removed, all refitted"],
  [/told the ECU|as new, and must not|is told that/i, "ECU resets"],
  [/lets? go (after|by itself)|had let go/i, "times out"],
  [/what the road asked/i, "driving conditions"],
  [/set \S+ aside because/i, "not related: why"],
  [/^built for$/i, "leak standard of its market"],
  [/there is no such/i, "no such …"],
  [/it takes the server/i, "needs the server"],
  [/at the commonest/i, "unknown items use typical values"],
  [/setting up takes off/i, "fit or remove"],
  [/\(top right\)/i, "a key that opens it"],
  [/times as much for its time|\bbits\b/i, "what it settles, and its minutes"],
  [/under what it set in under/i, "more runs under the same conditions"],
  [/has not been repeated|has not answered yet/i, "an order: test, drive, read"],
  [/cannot carry a verdict/i, "which fault the instrument has"],
  [/not sound yet/i, "within limits, not yet settled"],
  [/gas besides|ethanol in its petrol/i, "second fuel, ethanol"],
  [/waiting for us/i, "ready to work on"],
  [/^papers$|\bput right\b|its plate says/i, "documents, correct, rated"],
  [/boost asked for/i, "requested boost"],
  [/\bhangs? on it\b/i, "depends on it"],
  [/lets? (air|nothing) (out|by)|lets too much through/i, "leaks, tight, efficiency too low"],
  [/way out is free|intake is free/i, "not restricted"],
  [/hardly sucked|does not suck|drinks? it|drank it/i, "vacuum, draws in"],
  [/tells? the truth|that lies\b|sensor lies\b/i, "reads right, reads wrong"],
  [/server is away/i, "server is offline"],
  [/\blies? (above|below|between|behind us)\b/i, "is above, below, between, in the past"],
  [/gone along|led along/i, "checked"],
  [/is put out|was put out|out of the shop/i, "removed"],
  [/given out|taken in\b(?! by)/i, "exported, imported"],
];

it("says nothing in words that the trade does not use", () => {
  const said = shownStrings().flatMap(({ file, line, text }) =>
    BANNED.flatMap(([riddle, say]) => (riddle.test(text) ? [`${file}:${line} "${text}": say ${say}`] : [])),
  );
  expect(said).toEqual([]);
});

it("finds what is shown: a label, a sentence, a part of a template", () => {
  const texts = new Set(shownStrings("screens/board").map((s) => s.text));
  expect([...texts].some((t) => /^Search jobs$/.test(t))).toBe(true);
  expect(shownStrings("journal/gates").some((s) => s.text.startsWith("Put back to normal"))).toBe(true);
});
