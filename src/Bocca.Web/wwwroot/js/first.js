// The order of first notes: moved by drag or by buttons, kept by the form.
export const firstNotes = () => ({
  notes: [],
  added: "",
  lifted: "",
  init() {
    this.notes = this.$el.dataset.order.split(" ").filter((note) => note);
  },
  get items() {
    return this.notes.map((note, place) => ({
      note,
      shown: note.replace(/(?<=[A-G])b/g, "♭").replace("#", "♯"),
      first: place === 0,
      last: place === this.notes.length - 1,
      earlier: `${note} earlier`,
      later: `${note} later`,
      out: `leave out ${note}`,
    }));
  },
  get order() {
    return this.notes.join(" ");
  },
  of(event) {
    return event.target.closest("li").dataset.note;
  },
  move(note, to) {
    const rest = this.notes.filter((each) => each !== note);
    rest.splice(Math.max(0, to), 0, note);
    this.notes = rest;
  },
  up(event) {
    const note = this.of(event);
    this.move(note, this.notes.indexOf(note) - 1);
  },
  down(event) {
    const note = this.of(event);
    this.move(note, this.notes.indexOf(note) + 1);
  },
  leaveOut(event) {
    const note = this.of(event);
    this.notes = this.notes.filter((each) => each !== note);
  },
  lift(event) {
    this.lifted = this.of(event);
    event.dataTransfer.effectAllowed = "move";
  },
  drop(event) {
    if (this.lifted) this.move(this.lifted, this.notes.indexOf(this.of(event)));
    this.lifted = "";
  },
  add() {
    const note = this.added.trim();
    if (note && !this.notes.includes(note)) this.notes = [...this.notes, note];
    this.added = "";
  },
});
