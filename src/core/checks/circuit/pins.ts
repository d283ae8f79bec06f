/** How a load is wired. */
export const WIRINGS = ["two-wire", "relay"] as const;
export type Wiring = (typeof WIRINGS)[number];
export const WIRING_NAMES: Record<Wiring, string> = { "two-wire": "Two-wire solenoid", relay: "Fed through a relay" };

export type PinId =
  | "feed"
  | "ground"
  | "across"
  | "lamp"
  | "coil-feed"
  | "coil-across"
  | "contact-in"
  | "contact-out"
  | "load-ground";

/** One measurement on the way from battery to load. */
export interface Pin {
  readonly id: PinId;
  readonly name: string;
  readonly how: string;
  /** `battery`: must stand within the feed's drop of battery voltage; `across`: the shop's share of it; `nothing`: near 0 V */
  readonly expects: "battery" | "across" | "nothing" | "lamp";
  /** The part that is broken when this is the first that fails */
  readonly broken: string;
  /** Only while the load is commanded */
  readonly commanded: boolean;
}

/**
 * The pins in the order a fault is cornered in: what feeds it, what switches it, what stands across it.
 * @param switched which side the ECU switches.
 */
export function pinsOf(wiring: Wiring, switched: "ground" | "feed"): readonly Pin[] {
  const load: Pin[] = [
    {
      id: "across",
      name: "Across the load, commanded",
      how: "Meter across the plugged load's two pins (back-probe) while it is commanded",
      expects: "across",
      broken: "the control side does not switch, or a joint in the wire eats the voltage",
      commanded: true,
    },
    {
      id: "lamp",
      name: "Test lamp in its place",
      how: "Unplug the load, lamp across the plug, command it: a wire with one strand left shows volts and lights no lamp",
      expects: "lamp",
      broken: "the wire shows voltage and carries no current: a corroded pin or a broken strand",
      commanded: true,
    },
  ];
  if (wiring === "two-wire") {
    return [
      switched === "ground"
        ? {
            id: "feed",
            name: "Feed pin against battery minus",
            how: "Plug off, meter from the feed pin to battery minus, ignition as the load needs it",
            expects: "battery",
            broken: "no feed: fuse, main relay or the feed wire",
            commanded: false,
          }
        : {
            id: "ground",
            name: "Ground pin against battery minus",
            how: "Plug on, commanded: meter from the ground pin to battery minus",
            expects: "nothing",
            broken: "the ground is not one: clean its bolt, follow its wire",
            commanded: true,
          },
      ...load,
    ];
  }
  return [
    {
      id: "coil-feed",
      name: "Relay coil feed",
      how: "Relay out, meter from the socket's coil feed to battery minus",
      expects: "battery",
      broken: "no feed to the relay's coil: fuse or ignition switch",
      commanded: false,
    },
    {
      id: "coil-across",
      name: "Across the relay coil, commanded",
      how: "Meter across the two coil pins while the load is commanded",
      expects: "across",
      broken: "the ECU does not switch the relay, or the wire to it is broken",
      commanded: true,
    },
    {
      id: "contact-in",
      name: "Relay contact, in",
      how: "Meter from the socket's contact feed to battery minus",
      expects: "battery",
      broken: "no feed to the relay's contact: its own fuse",
      commanded: false,
    },
    {
      id: "contact-out",
      name: "Relay contact, out, commanded",
      how: "Relay in, commanded: meter from the contact's out pin to battery minus",
      expects: "battery",
      broken: "the relay pulls and does not pass: burnt contact, renew the relay",
      commanded: true,
    },
    {
      id: "load-ground",
      name: "Load's ground against battery minus",
      how: "Commanded: meter from the load's ground pin to battery minus",
      expects: "nothing",
      broken: "the ground is not one: clean its bolt, follow its wire",
      commanded: true,
    },
    ...load,
  ];
}
