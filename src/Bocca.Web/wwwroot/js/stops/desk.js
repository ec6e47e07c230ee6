import { start } from "../bocca.js";
import { pupil } from "../pupil.js";

start({ pupil });
