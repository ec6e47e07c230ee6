import { taking } from "./take.js";

// The Buzz stop.
export const buzz = () => taking("buzz", ["on"]);
