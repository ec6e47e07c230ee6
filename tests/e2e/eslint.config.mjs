// What scripts of the pages and of the browser's tests are read by: started at the top of the project (npm run lint).
import js from "@eslint/js";
import globals from "globals";

export default [
  { ignores: ["**/lib/**"] },
  js.configs.recommended,
  { rules: { "max-len": ["error", { code: 140 }] } },
  { files: ["src/**/*.js"], languageOptions: { globals: globals.browser } },
  { files: ["src/**/engraver.js"], languageOptions: { globals: globals.worker } },
  { files: ["src/**/capture-worklet.js"], languageOptions: { globals: globals.audioWorklet } },
  { files: ["tests/**/*.mjs"], languageOptions: { globals: { ...globals.node, ...globals.browser } } },
];
