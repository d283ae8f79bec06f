import { BadInput } from "../input";
import { parseQuantity, type Quantity } from "../units";

/** What was typed, a line each; empty ones left out. */
export const linesOf = (text: string): string[] =>
  text
    .split("\n")
    .map((l) => l.trim())
    .filter(Boolean);

/** Parts, one a line, with or without their count: "6 bolts", "6 × bolts", "gasket". */
export const partsOf = (text: string): { readonly name: string; readonly count: number }[] =>
  linesOf(text).map((line) => {
    const m = /^(\d+)\s*[×x*]?\s+(.*)$/.exec(line);
    return m ? { count: Number(m[1]), name: m[2] as string } : { count: 1, name: line };
  });

/** Torques, one a line: the fastener, then its torque with a unit. Throws BadInput for a line that is not. */
export const torquesOf = (text: string): { readonly where: string; readonly torque: Quantity }[] =>
  linesOf(text).map((line) => {
    const m = /^(.*?)[\s:]+([\d.,]+\s*\S+)$/.exec(line);
    const torque = m && parseQuantity(m[2] as string, { dimension: "torque", unit: "N·m" });
    if (!m || !torque?.ok)
      throw new BadInput(`"${line}": write the fastener, then its torque, like manifold nuts 20 N·m`, "body.torques");
    return { where: m[1] as string, torque: torque.value };
  });

/** Minutes of labour as typed; nothing typed is none. Throws BadInput for what is no number. */
export function minutesOf(text: string): number {
  const minutes = text.trim() === "" ? 0 : Number(text.replace(",", "."));
  if (!Number.isFinite(minutes)) throw new BadInput("Labour is a number of minutes, like 45", "body.labourMinutes");
  return minutes;
}

/** What was cleaned or freed and went back with no new part is as old as before: a temporary repair. */
export const onlyCleaned = ({ what, parts }: { readonly what: string; readonly parts: readonly unknown[] }): boolean =>
  parts.length === 0 && /\b(clean|wash|rins|decok|scrap|blown? (out|through)|blew|freed?\b|unst[iu]ck)/i.test(what);
