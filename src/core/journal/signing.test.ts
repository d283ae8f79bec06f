import { describe, expect, it } from "vitest";
import type { Role } from "../people";
import { foldJob } from "./fold";
import { proved, repairBody, SHOP, type Writer } from "./journal.fixture";
import { entryAct } from "./signing";

const ISLA = { by: "Isla Renn", role: "apprentice" } as const;
const TOBIN = { by: "Tobin Falk", role: "technician" } as const;
const MAREN = { by: "Maren Oake", role: "lead" } as const;
type Who = typeof ISLA | typeof TOBIN | typeof MAREN;

/** A job that is proved by measurement, whose repair was done by one of them. */
function repairedBy(who: Who): { job: Writer; repair: string } {
  const { job, repair } = proved();
  const at = job.entries.findIndex((e) => e.id === repair);
  job.entries[at] = { ...(job.entries[at] as (typeof job.entries)[number]), ...who };
  return { job, repair };
}
const reasons = (job: Writer) => job.state().blocks.close.map((b) => b.reason);
const PROPOSED = /^Have a technician or a lead look at it and sign: PCV hose renewed, proposed as permanent by Isla Renn$/;

describe("a repair that an apprentice proposes as permanent", () => {
  it("waits for a technician's or a lead's signature, and for nothing else", () => {
    for (const who of [TOBIN, MAREN]) {
      const { job, repair } = repairedBy(ISLA);
      expect(reasons(job)).toEqual([expect.stringMatching(PROPOSED)]);
      expect(job.state().repairs[0]).toMatchObject({ proposed: true });
      job.add("signed", { repair }, who);
      expect(reasons(job)).toEqual([]);
      expect(job.state().repairs[0]).toMatchObject({ proposed: false });
    }
  });

  it("is not asked of a technician, of a lead, of a temporary one, of one from before there were roles, nor in a practice bay", () => {
    for (const who of [TOBIN, MAREN]) expect(reasons(repairedBy(who).job)).toEqual([]);
    expect(proved().job.state().repairs[0]).toMatchObject({ proposed: false });
    const { job, repair } = repairedBy(ISLA);
    job.add("repair", repairBody("", { permanence: "temporary", recheck: "2026-09-01" }), { ...ISLA, corrects: repair });
    expect(job.state().repairs[0]).toMatchObject({ proposed: false });
    const practice = repairedBy(ISLA).job;
    practice.entries[0] = { ...(practice.entries[0] as (typeof practice.entries)[number]), body: { number: 7, practice: "x" } };
    expect(practice.state().repairs[0]).toMatchObject({ proposed: false });
  });

  it("is not signed by an apprentice, by a signature under another repair, nor by one that was taken out", () => {
    const { job, repair } = repairedBy(ISLA);
    job.add("signed", { repair }, ISLA);
    job.add("signed", { repair: job.entries[0]?.id as string }, MAREN);
    expect(reasons(job)).toEqual([expect.stringMatching(PROPOSED)]);
    const mine = job.add("signed", { repair }, TOBIN);
    expect(reasons(job)).toEqual([]);
    job.add("retract", { reason: "Looked at the wrong car" }, { ...TOBIN, corrects: mine });
    expect(reasons(job)).toEqual([expect.stringMatching(PROPOSED)]);
  });

  it("is signed as it read then: a correction since asks anew, and so does a signature that never saw it", () => {
    const { job, repair } = repairedBy(ISLA);
    job.add("signed", { repair }, TOBIN);
    job.add(
      "repair",
      { ...(job.state().repairs[0]?.body as object as ReturnType<typeof repairBody>), parts: [] },
      { ...ISLA, corrects: repair },
    );
    expect(job.state().repairs[0]).toMatchObject({ proposed: true });
    job.add("signed", { repair }, { ...TOBIN, device: "phone", seenSeq: 3 });
    expect(job.state().repairs[0]).toMatchObject({ proposed: true });
    // Whoever corrects it under a name that may sign answers for it.
    job.add(
      "repair",
      { ...(job.state().repairs[0]?.body as object as ReturnType<typeof repairBody>) },
      { ...MAREN, corrects: repair },
    );
    expect(job.state().repairs[0]).toMatchObject({ proposed: false });
  });

  it("cannot be made permanent by an apprentice's correction of what a technician did for a time", () => {
    const { job, repair } = repairedBy(TOBIN);
    job.add("repair", job.state().repairs[0]?.body as ReturnType<typeof repairBody>, { ...ISLA, corrects: repair });
    expect(job.state().repairs[0]).toMatchObject({ proposed: true });
  });
});

describe("what an entry asks for", () => {
  it.each([
    [{ kind: "signed", body: {} }, "sign-repair"],
    [{ kind: "countersigned", body: {} }, "countersign"],
    [{ kind: "handover", body: { conditional: true } }, "hand-over-conditionally"],
    [{ kind: "handover", body: { conditional: false } }, "record"],
    [{ kind: "handover", body: { conditional: true, onRoad: true } }, "record"],
    [{ kind: "close", body: {} }, "record"],
    [{ kind: "repair", body: { permanence: "permanent" } }, "record"],
    [{ kind: "retract", body: {} }, "record"],
    [{ kind: "from-tomorrow", body: {} }, "record"],
  ] as const)("%j asks for %s", (entry, act) => expect(entryAct(entry)).toBe(act));
});

describe("a closing", () => {
  const close = (job: Writer, who: Who) => job.add("close", { decidedOn: job.state().lastSeq }, who);
  const handedOver = () => {
    const { job } = repairedBy(TOBIN);
    job.add("handover", { decidedOn: job.state().lastSeq, conditional: false, summary: "Sound again" }, ISLA);
    return job;
  };
  const answer = (job: Writer, asked: string, who: Who, sentBack?: string) =>
    job.add("countersigned", { close: asked, decidedOn: job.state().lastSeq, ...(sentBack ? { sentBack } : {}) }, who);

  it("is a technician's and a lead's own", () => {
    for (const who of [TOBIN, MAREN]) {
      const job = handedOver();
      close(job, who);
      expect(job.state()).toMatchObject({ status: "closed" });
      expect(job.state()).not.toHaveProperty("closing");
    }
  });

  it("of an apprentice waits for a lead, and stands once it is countersigned", () => {
    const job = handedOver();
    const asked = close(job, ISLA);
    expect(job.state()).toMatchObject({ status: "handed-over", closing: { entry: asked, by: "Isla Renn" } });
    for (const who of [ISLA, TOBIN]) answer(job, asked, who);
    expect(job.state()).toMatchObject({ status: "handed-over", closing: { entry: asked } });
    answer(job, asked, MAREN);
    expect(job.state()).toMatchObject({ status: "closed" });
    expect(job.state()).not.toHaveProperty("closing");
  });

  it("that was sent back says why, and is asked for anew", () => {
    const job = handedOver();
    answer(job, close(job, ISLA), MAREN, "Take the hose off once more and show me");
    expect(job.state()).toMatchObject({
      status: "handed-over",
      closing: { sentBack: { by: "Maren Oake", reason: "Take the hose off once more and show me" } },
    });
    const again = close(job, ISLA);
    expect(job.state().closing).toEqual({ entry: again, by: "Isla Renn" });
    answer(job, again, MAREN);
    expect(job.state().status).toBe("closed");
  });

  it("is not countersigned by what names another, or had not seen it", () => {
    const job = handedOver();
    const asked = close(job, ISLA);
    answer(job, job.entries[0]?.id as string, MAREN);
    job.add("countersigned", { close: asked, decidedOn: 3 }, { ...MAREN, device: "phone", seenSeq: 3 });
    expect(job.state()).toMatchObject({ status: "handed-over", closing: { entry: asked } });
  });

  it("of a lead that an apprentice corrects is an apprentice's", () => {
    const job = handedOver();
    const closed = close(job, MAREN);
    job.add("close", { decidedOn: job.state().lastSeq }, { ...ISLA, corrects: closed });
    expect(job.state()).toMatchObject({ status: "handed-over" });
  });

  it("folds to the same in whatever order it is read", () => {
    const job = handedOver();
    const asked = close(job, ISLA);
    answer(job, asked, MAREN, "Not yet");
    answer(job, close(job, ISLA), MAREN);
    const { status } = job.state();
    expect(foldJob(job.entries.toReversed(), SHOP, Date.parse("2026-04-01T00:00:00Z")).status).toBe(status);
    const roles: (Role | undefined)[] = job.entries.map((e) => e.role);
    expect(roles).toContain("lead");
  });
});
