import { CHECK_IDS, CHECKS, type CheckId } from "../../checks";
import { choice, fields, formOf, oneOf, type RecordOf, text } from "../../form";
import { entryKind } from "./entry-kind";

const ZEROED = { soot: "Soot alone", all: "Soot and ash" } as const;

/** The ECU was told that a part is as new, and what it shows of it since. */
const resetFields = fields({
  check: oneOf<CheckId>(
    CHECK_IDS.filter((check) => CHECKS[check].resets),
    "The reset",
  ),
  /** Whether what stays in a part was zeroed as well: a filter's ash */
  zeroed: choice(ZEROED, { label: "Set to zero" }).optional(),
  learned: text({
    name: "What it shows since",
    label: "What it shows since: soot, ash, distance",
    example: "soot 0 g, ash 0 g, distance 0 km",
    max: 300,
    missing: "Write down what the ECU shows since: soot, ash, distance",
  }),
});
export type Reset = RecordOf<typeof resetFields>;

interface ResetFacts extends Pick<Reset, "check"> {
  /** Why what stays in the part must not be zeroed; undefined where it may, or where nothing stays */
  readonly stays?: string;
}

export const resetForm = formOf<ResetFacts>()(resetFields, {
  ask: {
    zeroed: {
      when: ({ known }) => CHECKS[known.check].resets?.stays !== undefined,
      defaultValue: ({ known }) => (known.stays ? "soot" : undefined),
      hint: ({ known }) => known.stays,
    },
  },
  computed: { check: (_, { known }) => known.check },
});

/** Whether a reset set to zero what stays in the part: as it was ticked, or else as what the ECU showed since has it. */
export const zeroedAll = ({ check, zeroed, learned }: Reset): boolean => {
  const stays = CHECKS[check].resets?.stays;
  if (stays === undefined) return false;
  if (zeroed !== undefined) return zeroed === "all";
  return new RegExp(`\\b${stays}\\b[^\\d,;.]{0,12}0(?:[.,]0+)?(?![\\d.,]*[1-9])`, "i").test(learned);
};

export const reset = entryKind(resetFields, {
  words: (b) => `${CHECKS[b.check].resets?.name ?? "ECU reset done"}: ${b.learned}`,
});
