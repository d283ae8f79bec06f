/** A name as it stands inside a sentence: "Manifold gasket" → "manifold gasket", "PCV hose" stays. */
export const inSentence = (name: string): string =>
  /^\p{Lu}\p{Ll}/u.test(name) || /^\p{Lu}$/u.test(name) ? name.charAt(0).toLowerCase() + name.slice(1) : name;
