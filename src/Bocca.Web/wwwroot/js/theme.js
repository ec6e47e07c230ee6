// Runs before the first paint, so that a dim room never flashes white.
(() => {
  const chosen = localStorage.getItem("bocca.theme");
  const dim = matchMedia("(prefers-color-scheme: dark)").matches;
  document.documentElement.dataset.theme = chosen ?? (dim ? "dark" : "light");
})();
