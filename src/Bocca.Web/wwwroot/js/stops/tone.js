import { start } from "../bocca.js";
import { tone } from "../tone.js";

start({ tone });
