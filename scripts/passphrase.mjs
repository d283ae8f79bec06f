/** Passphrases that everybody tries first. */
const COMMON = ["password", "passphrase", "passwort", "workshop", "garage", "pelota", "letmein", "qwerty", "welcome", "secret"];

/** Why a passphrase is too weak to stand between the shop and its network; undefined where it is not. */
export function weakness(passphrase) {
  const plain = passphrase.trim().toLowerCase();
  if (plain.length < 8) return "needs at least 8 characters";
  if (/^[\d\s.-]*$/.test(plain)) return "is only digits: take a few words";
  if (new Set(plain.replace(/\s/g, "")).size < 5) return "has too few different characters: take a few words";
  const letters = plain.replace(/[^a-z]/g, "");
  if (COMMON.some((word) => letters === word)) return "is one that everybody tries first: take a few words of your own";
  const step = (i) => plain.charCodeAt(i) - plain.charCodeAt(i - 1);
  const inRow = Array.from({ length: plain.length - 1 }, (_, i) => step(i + 1));
  if (inRow.every((s) => s === inRow[0])) return "is a row of neighbours: take a few words";
  return undefined;
}
