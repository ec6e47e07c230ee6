import { start } from "../bocca.js";
import { buzz } from "../buzz.js";
import { lips } from "../lips.js";

start({ buzz, lips });
