import * as yup from "yup";
import { readSurvey, refusal, type TrimSurvey, trimPoints } from "@/core/checks/trims";
import { BadInput, strictObject } from "@/core/input";
import { DEFAULT_LIMITS } from "@/core/shop/settings";
import { fromSi, type Quantity, quantitySchema } from "@/core/units";
import { type Command, parse } from "./door";

export const trims: Command = {
  run(input) {
    const survey = parse<
      Pick<TrimSurvey, "ambient" | "intakeTemperature" | "points" | "stop"> & {
        displacement: Quantity;
        induction: "natural" | "turbo";
        metering: "maf" | "map";
      }
    >(
      strictObject({
        ambient: quantitySchema("ambient").required(),
        intakeTemperature: quantitySchema("airTemperature").required(),
        displacement: quantitySchema("displacement").required(),
        induction: yup.string().oneOf(["natural", "turbo"]).required(),
        metering: yup.string().oneOf(["maf", "map"]).required(),
        stop: yup.number().min(8).max(60).optional(),
        points: trimPoints.schema,
      }),
      input,
    );
    const refused = refusal({ fuel: "petrol", metering: survey.metering });
    if (refused) throw new BadInput(refused, "metering");
    const limits = { good: DEFAULT_LIMITS.trimGood.value, act: DEFAULT_LIMITS.trimAct.value };
    const mm = (m: number) => fromSi(m, "mm");
    const hole = (h: { diameter: number; low: number; high: number }) => ({
      diameter: mm(h.diameter),
      low: mm(h.low),
      high: mm(h.high),
    });
    const { banks, shared } = readSurvey(survey, survey, "product", limits);
    return {
      shared: shared && { odds: shared.odds, hole: hole(shared.hole) },
      banks: banks.map((bank) => ({
        shapes: bank.shapes,
        error: bank.error * 100,
        hole: bank.hole && hole(bank.hole),
        observation: bank.observation,
      })),
    };
  },
};
