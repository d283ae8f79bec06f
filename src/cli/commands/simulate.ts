import { readCase } from "@/core/gas/network/case";
import { simulate } from "@/core/gas/network/simulate";
import { parseJson } from "@/core/input";
import { type Command, guarded, readText } from "./door";

/** Figures that are told: what lies behind them is the solver's own error. */
const FIGURES = 10;

/** A case of the network in, its channels as CSV out. */
export const simulateCommand: Command = {
  reads: "arguments",
  run(input, args) {
    const [path] = args;
    const text = path ? readText(path) : input;
    const given = readCase(parseJson(text, "The case is not JSON: it is empty, cut off or has a stray character"));
    return guarded(() => {
      const { names, rows } = simulate(given);
      const lines = [names.join(",")];
      for (const row of rows()) lines.push(row.map((x) => String(Number(x.toPrecision(FIGURES)))).join(","));
      return `${lines.join("\n")}\n`;
    });
  },
};
