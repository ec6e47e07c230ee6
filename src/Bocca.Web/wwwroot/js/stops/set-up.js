import { start } from "../bocca.js";
import { placement } from "../placement.js";
import { watch } from "../watch.js";

start({ placement, watch });
