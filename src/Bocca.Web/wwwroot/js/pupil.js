// The pupil's sheet: offers only the readings that the instrument has.
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
  },
});
