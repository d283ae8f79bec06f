/** Plays one world's cars, every family's, and prints what came of it as JSON: `tsx bench/judgement-world.ts <world> <cars> <seed>`. */
import { CODE_FAMILIES } from "@/core/practice/code";
import { opponentsTrial } from "./opponents";
import { carOfShop, type World } from "./shops";

const [world, cars, seed] = process.argv.slice(2) as [World, string, string];
const trials = CODE_FAMILIES.map((family) => opponentsTrial(Number(cars), Number(seed), (s) => carOfShop(family, world, s)));
process.stdout.write(JSON.stringify(trials));
