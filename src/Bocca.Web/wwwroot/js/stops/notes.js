import { start } from "../bocca.js";
import { hand } from "../hand.js";
import { firstNotes } from "../first.js";
import { callOut, lines } from "../lines.js";
import { notes } from "../notes.js";
import { slide } from "../slide.js";
import { tube } from "../tube.js";

start({ firstNotes, hand, callOut, lines, notes, slide, tube });
