import { sql } from "drizzle-orm";
import { index, integer, primaryKey, sqliteTable, text, uniqueIndex } from "drizzle-orm/sqlite-core";

/** Who works here; every entry's `by` is a name from this table. */
export const people = sqliteTable("people", {
  id: text("id").primaryKey(),
  name: text("name").notNull().unique(),
  createdAt: text("created_at").notNull(),
  role: text("role").notNull().default("technician"),
  /** Scrypt hash of the PIN, with its salt, hex; none until one was given */
  pin: text("pin"),
  pinSalt: text("pin_salt"),
  /** When the person left the shop: the name stays under what was written */
  leftAt: text("left_at"),
});

/** Devices of the shop that were let in, each by a token of its own. */
export const devices = sqliteTable("devices", {
  id: text("id").primaryKey(),
  name: text("name").notNull(),
  /** SHA-256 of the token that the device carries */
  token: text("token").notNull().unique(),
  /** The passphrase, as derived, that held when it was let in: another one puts it out */
  gate: text("gate").notNull(),
  enrolledAt: text("enrolled_at").notNull(),
  lastSeen: text("last_seen").notNull(),
  outAt: text("out_at"),
});

/** Who signed in where, and the key that what was made meanwhile is signed with. */
export const signIns = sqliteTable("sign_ins", {
  id: text("id").primaryKey(),
  personId: text("person_id")
    .notNull()
    .references(() => people.id),
  /** The device it was on; empty on the shop's own machine */
  deviceId: text("device_id").notNull(),
  role: text("role").notNull(),
  key: text("key").notNull(),
  at: text("at").notNull(),
  /** Opens no door any more: the role, the PIN or the person has changed since */
  endedAt: text("ended_at"),
  /** The form of entry that is made under it: the first, from before there was another, said nothing of who made it and when */
  form: integer("form").notNull().default(1),
});

/**
 * One row a job. `top` is the newest entry's `seq`; the columns after it are folded from the journal, through the entry
 * `folded`, and can be rebuilt at will.
 */
export const jobs = sqliteTable(
  "jobs",
  {
    id: text("id").primaryKey(),
    number: integer("number").notNull().unique(),
    createdAt: text("created_at").notNull(),
    top: integer("top").notNull().default(0),
    folded: integer("folded").notNull().default(0),
    status: text("status").notNull(),
    station: text("station").notNull(),
    reason: text("reason").notNull(),
    waitingOn: text("waiting_on").notNull(),
    vehicle: text("vehicle").notNull(),
    registration: text("registration").notNull(),
    complaint: text("complaint").notNull(),
    codes: text("codes").notNull(),
    updatedAt: text("updated_at").notNull(),
    /** Who wrote the newest entry */
    person: text("person").notNull().default(""),
    /** Families of faults that it is weighed over, with a space between */
    families: text("families").notNull().default(""),
    /** The first day on which something temporary or left is looked at again; empty where nothing is */
    recheck: text("recheck").notNull().default(""),
    /** The case that it is played on; empty for a real car. Practice is kept apart everywhere */
    practice: text("practice").notNull().default(""),
    /** Its addition to the shop's own experience, as JSON; empty where it proved nothing, or not yet */
    proved: text("proved").notNull().default(""),
    /** Which engine it is about, as `engineOf` names it; empty where that is not known */
    engine: text("engine").notNull().default(""),
    /** When the customer is to be called, and why, as JSON; empty where nothing asks for it */
    calls: text("calls").notNull().default(""),
    /** Where it stands on the board, as a place in LANES: a lead is asked to close what is handed over already */
    lane: integer("lane").generatedAlwaysAs(
      sql`case when status = 'closed' then 6 when waiting_on = 'lead' then 0 when status not in ('open', 'review') then 6 else case waiting_on when 'me' then 1 when 'customer' then 2 when 'part' then 3 when 'cold-soak' then 4 when 'drive' then 5 else 1 end end`,
      { mode: "virtual" },
    ),
  },
  (table) => [
    index("jobs_board").on(table.practice, table.lane, sql`updated_at desc`, table.id, table.status),
    index("jobs_newest").on(table.updatedAt),
    index("jobs_stale").on(table.id).where(sql`folded < top`),
    index("jobs_engine").on(table.engine),
  ],
);

/** Lessons of a job about how well this works; beside the jobs, so that the board does not read past it. */
export const lessons = sqliteTable("lessons", {
  jobId: text("job_id")
    .primaryKey()
    .references(() => jobs.id),
  lessons: text("lessons").notNull(),
});

/** The journals: append-only. */
export const entries = sqliteTable(
  "entries",
  {
    id: text("id").primaryKey(),
    jobId: text("job_id")
      .notNull()
      .references(() => jobs.id),
    seq: integer("seq").notNull(),
    kind: text("kind").notNull(),
    v: integer("v").notNull(),
    at: text("at").notNull(),
    by: text("by").notNull(),
    device: text("device").notNull(),
    deviceSeq: integer("device_seq").notNull(),
    seenSeq: integer("seen_seq").notNull(),
    body: text("body").notNull(),
    corrects: text("corrects"),
    recordedAt: text("recorded_at").notNull(),
    clampedFrom: text("clamped_from"),
    /** The role of whoever was signed in, and the signature, as JSON */
    role: text("role"),
    signed: text("signed"),
    person: text("person"),
    madeAt: text("made_at"),
    prior: text("prior"),
    /** By whom and when it was taken in from another shop, as JSON */
    imported: text("imported"),
    /** Why it is kept as history alone */
    history: text("history"),
  },
  (table) => [
    uniqueIndex("entries_order").on(table.jobId, table.seq),
    // The newest checks of all jobs, for how the machines were proved.
    index("entries_checks").on(table.recordedAt).where(sql`kind = 'check'`),
  ],
);

/** Events at the doors that a lead should know of: appended to, and held so by the database itself. */
export const securityLog = sqliteTable("security_log", {
  id: integer("id").primaryKey({ autoIncrement: true }),
  at: text("at").notNull(),
  what: text("what").notNull(),
  /** Who did it, where that is known, and on which device */
  who: text("who").notNull(),
  device: text("device").notNull(),
  detail: text("detail").notNull(),
});

/** Customer identity, outside the journal so that it can be erased. */
export const customers = sqliteTable("customers", {
  jobId: text("job_id")
    .primaryKey()
    .references(() => jobs.id),
  name: text("name").notNull(),
  contact: text("contact").notNull(),
});

/** The shop's settings, each time they were saved: the newest hold, and none is written over. */
export const shopVersions = sqliteTable("shop_versions", {
  version: integer("version").primaryKey({ autoIncrement: true }),
  at: text("at").notNull(),
  by: text("by").notNull(),
  value: text("value").notNull(),
});

/** How the user mapped a scan tool's headers, by header signature. */
export const mappings = sqliteTable("mappings", {
  signature: text("signature").primaryKey(),
  mapping: text("mapping").notNull(),
});

/** Files by content hash; the bytes lie in the data folder. */
export const files = sqliteTable(
  "files",
  {
    jobId: text("job_id")
      .notNull()
      .references(() => jobs.id),
    sha256: text("sha256").notNull(),
    name: text("name").notNull(),
    bytes: integer("bytes").notNull(),
    createdAt: text("created_at").notNull(),
  },
  (table) => [primaryKey({ columns: [table.jobId, table.sha256] })],
);
