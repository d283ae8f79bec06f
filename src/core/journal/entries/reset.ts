import { CHECK_IDS, CHECKS, type CheckId } from "../../checks";
import { fields, formOf, oneOf, type RecordOf, text } from "../../form";
import { entryKind } from "./entry-kind";

/** The ECU was told that a part is as new, and what it shows of it since. */
const resetFields = fields({
  check: oneOf<CheckId>(
    CHECK_IDS.filter((check) => CHECKS[check].resets),
    "The reset",
  ),
  learned: text({
    name: "What it shows since",
    label: "What it shows since: soot, ash, distance",
    example: "soot 0 g, ash 0 g, distance 0 km",
    max: 300,
    missing: "Write down what the ECU shows since: soot, ash, distance",
  }),
});
export type Reset = RecordOf<typeof resetFields>;

export const resetForm = formOf<Pick<Reset, "check">>()(resetFields, {
  computed: { check: (_, { known }) => known.check },
});

export const reset = entryKind(resetFields, {
  words: (b) => `${CHECKS[b.check].resets?.name ?? "The ECU was told"}: ${b.learned}`,
});
