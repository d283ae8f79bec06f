import { BadInput } from "../input";
import { formatNumber, formatQuantity, parseQuantity, type Quantity } from "../units";
import type { Bodies } from "./entries";

type Part = Bodies["repair"]["parts"][number];
type Torque = NonNullable<Bodies["repair"]["torques"]>[number];

/** A part with or without its count: "6 bolts", "6 × bolts", "gasket". */
export function partOf(line: string): Part {
  const m = /^(\d+)\s*[×x*]?\s+(.*)$/.exec(line);
  return m ? { count: Number(m[1]), name: m[2] as string } : { count: 1, name: line };
}

export const partLine = ({ count, name }: Part): string => `${count} ${name}`;

/** A fastener, then its torque with a unit. Throws BadInput for a line that is not. */
export function torqueOf(line: string): Torque {
  const m = /^(.*?)[\s:]+([\d.,]+\s*\S+)$/.exec(line);
  const torque = m && parseQuantity(m[2] as string, { dimension: "torque", unit: "N·m" });
  if (!m || !torque?.ok)
    throw new BadInput(`"${line}": write the fastener, then its torque, like manifold nuts 20 N·m`, "body.torques");
  return { where: m[1] as string, torque: torque.value as Quantity };
}

export const torqueLine = ({ where, torque }: Torque): string => `${where} ${torque.value} ${torque.unit}`;

/** A regeneration in a line: by whose command, how hot, and the soot before and after. */
export const regenerationLine = ({ by, hottest, sootBefore, sootAfter }: NonNullable<Bodies["repair"]["regeneration"]>): string =>
  [
    `regeneration ${by}`,
    hottest && `${formatQuantity(hottest)} at the hottest`,
    sootBefore !== undefined &&
      sootAfter !== undefined &&
      `soot ${formatNumber(sootBefore, 0)} g before, ${formatNumber(sootAfter, 0)} g after`,
  ]
    .filter(Boolean)
    .join(", ");

/** What was cleaned or freed and went back with no new part is as old as before: a temporary repair. */
export const onlyCleaned = ({
  what,
  parts,
  method,
}: {
  readonly what: string;
  readonly parts: readonly unknown[];
  readonly method?: Bodies["repair"]["method"] | undefined;
}): boolean => parts.length === 0 && (method === "cleaned" || CLEANING.test(what));
const CLEANING = /\b(clean|wash|rins|decok|scrap|blown? (out|through)|blew|freed?\b|unst[iu]ck)/i;
