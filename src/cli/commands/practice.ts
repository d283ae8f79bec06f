import { BadInput } from "@/core/input";
import { holeOf } from "@/core/practice/car";
import { arrivalCodes, practiceCase } from "@/core/practice/case";
import { fromSi } from "@/core/units";
import type { Command } from "./door";

/** A practice case's code in, what is true of its car out: for who set it, not for who plays it. */
export const practice: Command = {
  reads: "arguments",
  run(input, args) {
    const typed = args[0] ?? input;
    if (!typed.trim()) throw new BadInput("Say which case: pelota practice <code>", "code");
    const given = practiceCase(typed);
    const { code, family, facts, car, story, strays, arrives } = given;
    return {
      code,
      family,
      vehicle: facts,
      faults: car.faults.map((fault) => {
        const hole = holeOf(fault, car.context.vehicle);
        const { id, name, joint } = fault.cause;
        return { cause: id, name, ...(joint ? { joint } : {}), ...(hole > 0 ? { hole: fromSi(hole, "mm") } : {}) };
      }),
      story,
      codes: arrivalCodes(given).map((c) => c.code),
      misleading: strays,
      arrives,
      ambient: fromSi(car.ambient, "hPa", "absolute"),
      temperature: fromSi(car.temperature, "°C"),
      fuelLevel: car.fuelLevel,
    };
  },
};
