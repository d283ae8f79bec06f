/** The ECU and the engine's mechanics are stepped so often, s. */
export const STEP = 0.05;
/** Engine speed that idle control holds, 1/min. */
export const IDLE = 740;
/** Work that a kilogram of air brings with its fuel, J/kg, and friction with pumping at no load, N·m; a small engine's. */
export const WORK = 0.9e6;
export const FRICTION = 28;
/** Moment of inertia with its flywheel, kg·m². */
export const INERTIA = 0.15;
/** How fast a foot changes engine speed without load, 1/min a second. */
export const FOOT = 500;
/** Idle control on the throttle's effective area: m² for each 1/min that is missing, and for each of those a second. */
export const PROPORTIONAL = 1e-8;
export const INTEGRAL = 6e-9;
/** A plate that is shut passes so much of what an idle takes: past a large hole idle control is at its end. */
export const LEAST = 0.45;
/** Gas reaches the oxygen sensor after so long, and it follows with this time constant, s. */
export const TRANSPORT = 0.4;
export const SENSOR = 0.25;
/** Closed loop: percent a second for an error of one in λ; long-term takes over a share of short-term a second; where both stop, percent. */
export const CLOSED_LOOP = 60;
export const LEARNS = 1 / 15;
export const STOP = 25;
/** Meter and pressure sensor, standard deviations: share, Pa. */
export const METER_NOISE = 0.005;
export const PRESSURE_NOISE = 150;
/** A pipe as wide as a full throttle, for each m³ of displacement, m² effective. */
export const WIDE = 0.75;
/** Filter with duct, and the way out, of a 1.6 L engine: m² effective. */
export const FILTER = 1.1e-3;
export const WAY_OUT = 4.5e-4;
export const BLOCKED = 1e5;
/** Vanes or wastegate stand so that before the turbine there is so many times the manifold's pressure; wide open it passes so much, m². */
export const TURBINE = 1.15;
export const WIDE_OPEN = 9e-4;
/** Share of its boost that each 10⁵ Pa·s/m³ of a blocked exhaust takes. */
export const DRIVES_LESS = 0.013;
/** Charge air above the air outside, behind its cooler, and gas in the exhaust, K. */
export const CHARGE = 20;
export const EXHAUST = 650;
/** Flow a compressor can push at full boost, as a multiple of what the engine takes there. */
export const COMPRESSOR = 1.12;
/** Mean suction between the pulses in the exhaust, Pa, and the share of time that it lasts. */
export const PULSE = 1500;
export const SUCKS = 0.6;

/** Coolant of a warm engine, K, and how fast it gets there, s; closed loop from so warm on, K, and so long after the start, s. */
export const WARM = 361.15;
export const WARMS = 120;
export const LOOP = { from: 308, after: 10 } as const;
/** A cold engine idles faster by up to so much, 1/min. */
export const FAST_IDLE = 350;
/**
 * Enrichment gas that is held to a hole: it reaches the cylinders after so long and is drawn for so long, s; share of fuel that it is for
 * each share of the air that comes in by the hole.
 */
export const GAS = { reaches: 1.8, rises: 0.7, lasts: 4, fades: 2, richer: 0.55 } as const;

/** Boost is given up where it is off by more than either, Pa and share of what is asked, for so long, s. */
export const GIVES_UP = { off: 15e3, share: 0.1, after: 2 } as const;

export const RPM = Math.PI / 30;
export const STOICHIOMETRIC = 14.7;
export const SIZE = 1.6e-3;
