import { start } from "../bocca.js";
import { lines } from "../lines.js";
import { slurLips } from "../slur-lips.js";
import { slurs } from "../slurs.js";

start({ lines, slurLips, slurs });
