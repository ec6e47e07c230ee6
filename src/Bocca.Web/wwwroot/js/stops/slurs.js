import { start } from "../bocca.js";
import { lines } from "../lines.js";
import { slurs } from "../slurs.js";

start({ lines, slurs });
