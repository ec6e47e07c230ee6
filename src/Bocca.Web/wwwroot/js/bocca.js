import Alpine from "/lib/alpine.js";
import { buzz } from "./buzz.js";
import { frame } from "./frame.js";
import { notes } from "./notes.js";
import { pupil } from "./pupil.js";

Alpine.data("frame", frame);
Alpine.data("buzz", buzz);
Alpine.data("notes", notes);
Alpine.data("pupil", pupil);
Alpine.start();
