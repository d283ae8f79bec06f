import type { EscapeSign, PressureTest } from "@/core/checks/pressure-test";
import { massFlux } from "@/core/gas/orifice";
import { seededNoise } from "@/core/maths/random";
import { fromSi } from "@/core/units";
import { inUse } from "./readings";

/** A crack that pressure opens: shut below `opensAt`, then wider the higher the pressure. */
export interface HiddenCrack {
  readonly joint: string;
  /** Pa gauge */
  readonly opensAt: number;
  /** m² per Pa above it */
  readonly widens: number;
}

/** Air of this density, kg/m³, that an ear and a hand find, and that soap shows, m³/s. */
const DENSITY = 1.2;
const HEARD = 6e-3 / 60;
const BUBBLES = 0.05e-3 / 60;

/** Readings that a hand at the test valve writes down: the stops, and at each what the ear and then the soap find. */
export function pressureTestOf(
  { ambient, temperature }: { readonly ambient: number; readonly temperature: number },
  crack: HiddenCrack | undefined,
  story: Pick<PressureTest, "entry" | "blocked" | "heldOpen" | "maxBoost" | "ratings"> & {
    readonly seed: number;
    /** Pa gauge */
    readonly stops: readonly number[];
  },
): PressureTest {
  const noise = seededNoise(story.seed);
  const { seed: _, stops, ...setup } = story;
  const read = (pa: number) => fromSi(Math.round(pa / 2000) * 2000, "bar", "gauge");
  const steps = stops.map((stop) => stop + noise.normal(1500));
  const flow = (pa: number) =>
    crack ? (0.61 * Math.max(0, pa - crack.opensAt) * crack.widens * massFlux(ambient + pa, ambient, temperature)) / DENSITY : 0;
  const sign = (pa: number): EscapeSign | undefined => (flow(pa) > HEARD ? "heard" : flow(pa) > BUBBLES ? "soap" : undefined);
  const first = steps.find((pa) => sign(pa) !== undefined);
  return {
    ...setup,
    steps: steps.map((pa) => ({ pressure: read(pa) })),
    escapes: crack && first !== undefined ? [{ joint: crack.joint, sign: sign(first) as EscapeSign, from: read(first) }] : [],
    everywhere: true,
    instrument: inUse("boost"),
  };
}
