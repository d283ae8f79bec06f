import * as yup from "yup";
import { line } from "../../input";

export type LookState = "found" | "fine" | "not-reached";

/** The look by eye, hand, ear and nose: every place on the list with what was seen. */
export interface LookRecord {
  readonly items: readonly { readonly id: string; readonly state: LookState; readonly note?: string }[];
}

export const lookSchema = yup
  .object({
    items: yup
      .array()
      .of(
        yup
          .object({
            id: yup.string().max(60).required(),
            state: yup.mixed<LookState>().oneOf(["found", "fine", "not-reached"], "Say found, fine or not reached").required(),
            note: line("The note", 500).optional(),
          })
          .noUnknown()
          .strict()
          .required(),
      )
      .min(1, "Nothing looked at yet: mark at least one place")
      .max(80)
      .required()
      .test(
        "once",
        "Each place is looked at once: keep the last",
        (list) => new Set((list ?? []).map((i) => i?.id)).size === (list ?? []).length,
      ),
  })
  .noUnknown()
  .strict();
