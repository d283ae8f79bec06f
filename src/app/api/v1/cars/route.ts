import { boardFolded } from "@/server/board";
import { carsLike, carsOfVin, knownCar } from "@/server/cars";
import { door } from "@/server/http";

export const dynamic = "force-dynamic";

/** A car that was here before, by its `registration`; cars of this shop that another is `like`; or both, by a `vin`. */
export const GET = (request: Request) =>
  door(request, async () => {
    await boardFolded();
    const { searchParams } = new URL(request.url);
    const vin = searchParams.get("vin");
    if (vin !== null) return carsOfVin(vin);
    const like = searchParams.get("like");
    return like === null ? knownCar(searchParams.get("registration") ?? "") : carsLike(like);
  });
