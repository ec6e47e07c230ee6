import { start } from "../bocca.js";
import { gaze } from "../gaze.js";
import { motion } from "../motion.js";
import { placement } from "../placement.js";
import { watch } from "../watch.js";

start({ gaze, motion, placement, watch });
