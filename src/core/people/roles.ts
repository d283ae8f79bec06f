/** Who works in a shop, by what they may do. */
export const ROLES = { apprentice: "Apprentice", technician: "Technician", lead: "Lead" } as const;
export type Role = keyof typeof ROLES;
export const ROLE_IDS = Object.keys(ROLES) as Role[];

const EVERYBODY = ROLE_IDS;
const SKILLED: readonly Role[] = ["technician", "lead"];
const LEAD: readonly Role[] = ["lead"];

/** Who may what. What stands here is asked at the server's doors, in the fold, and by the screens that offer it. */
export const ACTS = {
  record: { words: "records and proposes", roles: EVERYBODY },
  "sign-repair": { words: "signs a repair as permanent", roles: SKILLED },
  close: { words: "closes a job", roles: SKILLED },
  "keep-equipment": { words: "describes machines and gauges", roles: SKILLED },
  "import-job": { words: "imports job files", roles: SKILLED },
  countersign: { words: "countersigns an apprentice's closing", roles: LEAD },
  "hand-over-conditionally": { words: "signs a conditional handover", roles: LEAD },
  "change-limits": { words: "changes limits", roles: LEAD },
  "change-house": { words: "changes house methods and the shop's name", roles: LEAD },
  calibrate: { words: "changes what a machine is rated or calibrated to", roles: LEAD },
  "manage-people": { words: "adds people, and changes roles and PINs", roles: LEAD },
  "manage-devices": { words: "removes devices", roles: LEAD },
  "erase-customer": { words: "erases a customer", roles: LEAD },
  "move-shop": { words: "exports the whole shop, or imports another", roles: LEAD },
  "see-security-log": { words: "reads what happened at the doors", roles: LEAD },
  "see-practice": { words: "sees the practice of others", roles: LEAD },
} as const satisfies Record<string, { readonly words: string; readonly roles: readonly Role[] }>;
export type Act = keyof typeof ACTS;
export const ACT_IDS = Object.keys(ACTS) as Act[];

/** Whether a role may do this; where a shop has no lead yet nobody has a role, and everybody may. */
export const may = (role: Role | undefined, act: Act): boolean =>
  role === undefined || (ACTS[act].roles as readonly Role[]).includes(role);

/** Wording for whom may not. */
export function mayNot(act: Act): string {
  const { words, roles } = ACTS[act];
  const who = roles.length === 1 ? "Only a lead" : "Only a technician or a lead";
  return `${who} ${words}: ask one to do it under their own name`;
}
