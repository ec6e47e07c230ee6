import { start } from "../bocca.js";
import { piece } from "../piece.js";
import { sheet, writing } from "../writing.js";

start({ piece, sheet, writing });
