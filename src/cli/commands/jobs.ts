import { foldJob, parseJobFile } from "@/core/journal";
import { weightInWords } from "@/core/suspects";
import { type Command, readText } from "./door";

export const assess: Command = {
  run(input) {
    const file = parseJobFile(input);
    return foldJob(file.entries, file.shop, Date.parse(file.exportedAt));
  },
};

export const suspects: Command = {
  reads: "arguments",
  run(input, args) {
    const file = parseJobFile(args[0] ? readText(args[0]) : input);
    const state = foldJob(file.entries, file.shop, Date.parse(file.exportedAt));
    return {
      suspects: state.suspects.map((s) => ({
        id: s.cause.id,
        name: s.cause.name,
        joint: s.cause.joint ?? null,
        odds: s.odds,
        because: s.because.map((b) => ({ ...b, weight: weightInWords(b.factor) })),
      })),
      worthNothing: state.checks
        .filter((c) => c.verdict.outcome === "void")
        .map((c) => ({ entry: c.entry, check: c.check, why: c.verdict.reasons })),
      retired: state.retired,
      next: state.next,
    };
  },
};
