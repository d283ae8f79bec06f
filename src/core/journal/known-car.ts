import type { VehicleRecord } from "../vehicle";

/** An earlier visit of a car: what was wrong then, and how that job stands. */
export interface Visit {
  readonly id: string;
  readonly number: number;
  readonly status: string;
  readonly complaint: string;
  readonly updatedAt: string;
}

/** A car that is being written down, and what the shop knows of it. */
export interface KnownCar {
  readonly visits: readonly Visit[];
  /** As it was described last, without what is read anew at every visit */
  readonly facts?: VehicleRecord;
}

/** What the shop knows by a VIN. */
export interface CarsOfVin {
  /** The very car, where it was here */
  readonly car?: KnownCar;
  /** Cars whose VIN is alike in maker and kind */
  readonly like: readonly LikeCar[];
}

/** A car of this shop that another may be like. */
export interface LikeCar {
  /** The job it was described in */
  readonly job: string;
  readonly vehicle: string;
  readonly facts: VehicleRecord;
}
