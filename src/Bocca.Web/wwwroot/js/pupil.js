// The pupil's sheet: offers only the readings and asks only the fields that the instrument has.
export const pupil = () => ({
  init() {
    this.readings();
  },

  readings() {
    const chosen = this.$root.querySelector("[name='Form.Instrument']").selectedOptions[0];
    const known = (chosen?.dataset.readings ?? "").split(" ");
    const reading = this.$root.querySelector("[data-reading]");
    for (const option of reading.options) option.hidden = option.value !== "" && chosen?.value !== "" && !known.includes(option.value);
    if (reading.selectedOptions[0]?.hidden) reading.value = "";
    // What does not concern the instrument is not asked.
    for (const field of this.$root.querySelectorAll("[data-for]"))
      field.hidden = chosen?.value !== "" && field.dataset.for !== chosen?.dataset.kind;
  },
});
