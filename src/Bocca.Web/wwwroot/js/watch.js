// The Set-up stop's watching: a tap or a key notes what was seen; the advice that follows comes back.
export const watch = () => ({
  trouble: "",

  init() {
    this.listener = (event) => {
      if (
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        document.querySelector("dialog[open]") ||
        ["INPUT", "SELECT", "TEXTAREA"].includes(event.target.tagName)
      )
        return;
      if (/^[a-z]$/.test(event.key)) this.$root.querySelector(`.seen[data-key="${event.key}"]`)?.click();
    };
    window.addEventListener("keydown", this.listener);
  },

  destroy() {
    window.removeEventListener("keydown", this.listener);
  },

  async tap(event) {
    const seen = event.currentTarget;
    if (await this.note(seen.dataset.signal)) seen.setAttribute("aria-pressed", seen.getAttribute("aria-pressed") !== "true");
  },

  async answer(event) {
    const { answer } = event.target.dataset;
    if (answer) await this.note(answer);
  },

  async note(signal) {
    this.trouble = "";
    try {
      const response = await fetch(`/set-up/${this.$root.dataset.pupil}/watch?handler=Notice`, {
        method: "POST",
        body: new URLSearchParams({ signal }),
        headers: { "X-Antiforgery": document.querySelector("meta[name=antiforgery]").content, "X-Once": crypto.randomUUID() },
      });
      if (!response.ok) throw new Error();
      this.$root.querySelector("[data-advice]").innerHTML = await response.text();
      return true;
    } catch {
      this.trouble = "That was not noted: Bocca does not answer. Is it still running?";
      return false;
    }
  },
});
