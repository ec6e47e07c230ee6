import { start } from "../bocca.js";
import { breath } from "../breath.js";

start({ breath });
