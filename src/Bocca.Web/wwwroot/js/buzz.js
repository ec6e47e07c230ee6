import { taking } from "./take.js";

// The Buzz stop.
export const buzz = () => ({
  ...taking("buzz", ["on"]),
  // The gate follows from what is played on.
  chooseOn() {
    const query = new URLSearchParams({ drill: this.field("drill").value, on: this.field("on").value });
    location.assign(`/buzz/${this.$root.dataset.pupil}?${query}`);
  },
});
