import { toSi } from "../../units";
import { atomOf, type Claim, ofEngine, type Says, saysOf } from "../claim";
import type { CheckContext } from "../context";
import type { Verdict } from "../verdict";
import type { CrankcaseReading } from "./fields";

/**
 * Crankcase pressure at each speed it was read at, a question of its own: what fails at speed is not answered at idle. Without the
 * maker's band its sign answers: suction where there was pressure.
 */
export function crankcaseClaims(reading: CrankcaseReading, verdict: Verdict, { layout, vehicle }: CheckContext): Claim[] {
  if (verdict.outcome === "void") return [];
  const band = vehicle.crankcaseBand;
  const most = band ? toSi(band.high) : 0;
  const high = toSi(reading.idle) > most;
  const signRight = verdict.observation === "crankcase-sign-right";
  const atSpeed = reading.raised && toSi(reading.raised) > most;
  const idle: Says = verdict.outcome === "fail" && atSpeed && !high ? "good" : signRight ? "good" : saysOf(verdict.outcome);
  const at = (state: string | undefined, words: string, says: Says) =>
    ofEngine(layout, atomOf("pressure", "crankcase", state), `crankcase pressure ${words}`, says);
  return [
    at(undefined, "at idle", idle),
    ...(reading.raised ? [at("raised", "at raised speed", atSpeed ? "bad" : verdict.outcome === "fail" ? "open" : idle)] : []),
  ];
}
