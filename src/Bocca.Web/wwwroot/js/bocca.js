import Alpine from "/lib/alpine.js";
import { breath } from "./breath.js";
import { buzz } from "./buzz.js";
import { frame } from "./frame.js";
import { lips } from "./lips.js";
import { notes } from "./notes.js";
import { placement } from "./placement.js";
import { pupil } from "./pupil.js";
import { watch } from "./watch.js";

Alpine.data("frame", frame);
Alpine.data("breath", breath);
Alpine.data("buzz", buzz);
Alpine.data("lips", lips);
Alpine.data("notes", notes);
Alpine.data("placement", placement);
Alpine.data("pupil", pupil);
Alpine.data("watch", watch);
Alpine.start();
