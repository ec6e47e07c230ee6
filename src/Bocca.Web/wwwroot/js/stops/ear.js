import { start } from "../bocca.js";
import { cards } from "../cards.js";
import { count } from "../count.js";
import { delay } from "../delay.js";
import { ear } from "../ear.js";
import { tell } from "../tell.js";

start({ cards, count, delay, ear, tell });
