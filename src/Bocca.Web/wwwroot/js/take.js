import { Capture, silentWords, wavOf } from "./capture.js";
import { passingMs, remembered, unfold } from "./frame.js";
import { Live } from "./live.js";
import { audio, countIn, countInClicks, inWords, line, note, refusal } from "./sound.js";
import { forget, keep, waiting } from "./waiting.js";

const leadSeconds = 0.5;
const tailSeconds = 0.3;

// Beats of a model, in whole bars.
const barsOf = (notes) => countIn * Math.ceil(Math.max(...notes.map(({ startBeat, beats }) => startBeat + beats)) / countIn - 1e-6);

// How late what is answered to a count reaches the recording, seconds: as it was measured on this machine, else as the browser says.
export function lateness(context) {
  const measured = Number(localStorage.getItem("bocca.delay.ms"));
  return measured > 0 ? measured / 1000 : (context.outputLatency || 0) + (context.baseLatency || 0);
}

// What a field of the transport says; a box says whether it is ticked.
const worth = (field) => (field?.type === "checkbox" ? String(field.checked) : (field?.value ?? ""));

// A stop that takes sound in: counts a take in and through, takes it in, sends it to be heard, shows what came back.
// stop: where it lives. fields: what of the transport is asked of the core, beside drill and tempo.
export const taking = (stop, fields) => ({
  source: "Microphone",
  // Who leads: the pupil alone, Bocca first and the pupil after, or both together.
  led: "alone",
  running: false,
  hearing: false,
  count: "–",
  label: "",
  trouble: "",
  stopNow: null,
  unsent: null,
  // What was asked when Start was pressed, as the room sealed it.
  request: "",
  // What was taken in last, to be heard again until the next take: in this page's memory alone.
  made: null,

  isFile() {
    return this.source === "File";
  },

  isPractice() {
    return this.source === "PracticePlayer";
  },

  // A sound that is there as a whole need not be played through.
  isMade() {
    return this.isFile() || this.isPractice();
  },

  nextWords() {
    if (this.running) return this.label === "listen" ? "Listen to the end." : "Play: the count leads.";
    return this.leads() === "first" ? "Press Start: listen, then four counts in, then play." : "Press Start: four counts in, then play.";
  },

  goWords() {
    if (this.hearing) return "Hearing";
    return this.running ? "Stop" : "Start";
  },

  async init() {
    // Each page listens to the pupil until somebody chooses otherwise.
    this.source = this.field("source").value;
    // Chosen before the page was awake: what more there is to choose opens now.
    this.chooseSource();
    this.led = this.field("led") ? remembered(this.field("led"), "bocca.led") : "alone";
    this.$watch("led", (led) => localStorage.setItem("bocca.led", led));
    window.addEventListener("beforeunload", (this.leaver = (event) => this.running && event.preventDefault()));
    window.addEventListener(
      "bocca:leaving",
      (this.warner = () => this.pass("A take is running. Stop it first; what is finished will be heard.")),
    );
    this.$root.addEventListener("click", (event) => this.again(event));
    this.unsent = (await waiting(stop, this.$root.dataset.pupil)) ?? null;
    if (this.unsent) this.trouble = `A take of ${new Date(this.unsent.at).toTimeString().slice(0, 5)} was not judged yet.`;
  },

  destroy() {
    window.removeEventListener("beforeunload", this.leaver);
    window.removeEventListener("bocca:leaving", this.warner);
  },

  leads() {
    return this.led;
  },

  // A sound that is made has more to choose.
  chooseSource() {
    if (this.isMade()) unfold(this.$root.querySelector(".transport"), true);
  },

  // Said while it can still be mended, and taken back once something is heard.
  silent(silent) {
    if (silent) this.trouble = silentWords;
    else if (this.trouble === silentWords) this.trouble = "";
  },

  // A word in passing goes by itself; what has to be answered stays.
  pass(words) {
    this.trouble = words;
    setTimeout(() => this.trouble === words && (this.trouble = ""), passingMs);
  },

  // After a demonstration it is the pupil's turn.
  byMicrophone() {
    this.source = "Microphone";
    this.$root.querySelector("[data-go]").focus();
  },

  // The drawing on the stage, with what is written and without what was heard before; the old verdict goes with it.
  stage() {
    const root = this.$root;
    unfold(root.querySelector(".transport"), false);
    const stage = root.querySelector("#stage");
    root.querySelectorAll("[data-verdict], .aims, .own-scale, .live-threads").forEach((old) => old.remove());
    const picture = stage.querySelector("svg[data-axis]");
    picture
      .querySelectorAll(".heard-thread, .miss, .thread, .found, .starts, .try .air, .try .tone, .try .strong + .strong, .strip > g > .sure")
      .forEach((old) => old.remove());
    picture.querySelectorAll(".missed").forEach((note) => note.classList.remove("missed"));
    stage.removeAttribute("data-place");
    const hand = root.querySelector(".hand");
    hand.querySelector("section.next")?.remove();
    hand.insertAdjacentHTML(
      "beforeend",
      '<section class="next"><h2>Next</h2><p class="cue" data-running></p><p class="reason" data-line></p></section>',
    );
    this.mark();
    return picture;
  },

  // Sends a take once more that did not get through.
  async sendAgain() {
    if (!this.unsent) return;
    this.trouble = "";
    try {
      await this.send(this.unsent);
    } catch (problem) {
      this.trouble = inWords(problem, "choose another source");
    } finally {
      this.hearing = false;
    }
  },

  // Lets a take go that nobody wants judged.
  async letGo() {
    await forget(this.unsent.key);
    [this.unsent, this.trouble] = [null, ""];
  },

  // The take just made, whole or from where it went otherwise, at its pace or slowed.
  again(event) {
    const button = event.target.closest("[data-play], [data-play-place]");
    if (!button || !this.made) return;
    this.player?.pause();
    URL.revokeObjectURL(this.player?.src);
    this.player = new Audio(URL.createObjectURL(this.made));
    this.player.playbackRate = this.$root.querySelector("[data-slow]").checked ? 0.6 : 1;
    if ("playPlace" in button.dataset) this.player.currentTime = Math.max(0, Number(this.$root.querySelector("#stage").dataset.place) - 1);
    this.player.play();
  },

  field(name) {
    return this.$root.querySelector(`.transport [name=${name}]`);
  },

  drill() {
    const { value, dataset } = this.field("drill").selectedOptions[0];
    const { min, max } = this.field("tempo");
    const tempo = Math.min(Number(max), Math.max(Number(min), Number(this.field("tempo").value) || Number(dataset.tempo)));
    return { id: value, tempo };
  },

  // What is asked, as the core reads it.
  asked(drill) {
    return { drill: drill.id, tempo: drill.tempo, ...Object.fromEntries(fields.map((name) => [name, worth(this.field(name))])) };
  },

  // What the sound is made on, for the line that draws while it sounds.
  on() {
    return this.field("on")?.value ?? "Instrument";
  },

  // The drill beat by beat, as the core counts it; and what is asked, sealed, which comes back with the sound.
  async plan(drill) {
    const query = new URLSearchParams({ handler: "Begin", source: this.source, ...this.asked(drill) });
    const response = await fetch(`/${stop}/${this.$root.dataset.pupil}?${query}`);
    if (!response.ok) throw new Error(await refusal(response, "The drill could not be laid out. Try once more."));
    const plan = await response.json();
    this.request = plan.request ?? "";
    return plan;
  },

  chooseDrill() {
    this.field("tempo").value = this.field("drill").selectedOptions[0].dataset.tempo;
    location.assign(`/${stop}/${this.$root.dataset.pupil}?drill=${this.field("drill").value}`);
  },

  async toggle() {
    if (this.running) {
      this.stopNow?.();
      return;
    }
    if (this.hearing) return;
    this.trouble = "";
    this.player?.pause();
    try {
      if (this.isFile()) await this.sendFile();
      else if (this.isPractice() && this.field("atonce").checked) await this.sendPractice();
      else await this.record();
    } catch (problem) {
      this.trouble = inWords(problem, "choose another source");
    } finally {
      this.running = false;
      this.hearing = false;
      this.count = "–";
      this.label = "";
      this.mark();
    }
  },

  // A file is played through the line that a microphone takes, and then measured as it is.
  async sendFile() {
    const file = this.field("file").files[0];
    if (!file) throw new Error("Choose a WAV file first.");
    await this.plan(this.drill());
    if (this.field("atonce").checked) this.stage();
    else if (!(await this.playFile(file))) return;
    await this.send(this.sent(file, this.drill(), null, 0, file.name));
  },

  // The practice player's take as it would have been captured, without the time that it lasts.
  async sendPractice() {
    const { context } = await audio();
    const drill = this.drill();
    await this.plan(drill);
    this.stage();
    await this.send(this.sent(wavOf(await this.practice(context, drill), leadSeconds, tailSeconds), drill, leadSeconds));
  },

  async playFile(file) {
    const { context } = await audio();
    let sound;
    try {
      sound = await context.decodeAudioData(await file.arrayBuffer());
    } catch {
      return true; // What the browser cannot play, the listener may still read, or refuse by name.
    }
    const capture = new Capture(context);
    const live = new Live(context, Number(this.$root.dataset.pupil), this.on());
    try {
      await Promise.all([capture.open(), live.open()]);
      const begin = context.currentTime + 0.1;
      live.show(this.stage(), null, this.drill().tempo);
      capture.fromPlayer(sound, begin);
      capture.onblock = (block) => live.take(block);
      this.running = true;
      this.mark();
      return await this.until(
        context,
        begin + sound.duration,
        (now) => (this.count = `${Math.max(0, Math.ceil(begin + sound.duration - now))}`),
      );
    } finally {
      live.close();
      capture.close();
    }
  },

  async record() {
    const drill = this.drill();
    const plan = await this.plan(drill);
    const beat = plan.beatSeconds;
    const { tone, context } = await audio();
    const capture = new Capture(context);
    const live = new Live(context, Number(this.$root.dataset.pupil), this.on());
    const silences = [];
    try {
      await Promise.all([capture.open(), live.open()]);
      const played = this.isPractice() ? await this.practice(context, drill) : null;
      capture.onsilent = (silent) => this.silent(silent);
      if (!played) await capture.fromMicrophone((why) => this.stopNow?.(why));
      const start = context.currentTime + 0.2;
      // Mine, then yours: as many whole bars of four as the model has, with a count before each of us.
      const leading = plan.lead.length > 0 && this.leads() === "first";
      const begin = start + (leading ? countIn + barsOf(plan.lead) : 0) * beat;
      const first = begin + countIn * beat;
      // What is heard reaches the player late by the way out; the microphone hears the answer that much later.
      const late = played ? 0 : lateness(context);
      live.show(this.stage(), first + late, drill.tempo);
      const end = first + plan.totalBeats * beat;
      if (played) capture.fromPlayer(played, first);
      capture.onblock = (block) => block.from >= (first - leadSeconds) * context.sampleRate && live.take(block);
      silences.push(countInClicks(tone, begin, beat));
      if (leading)
        silences.push(countInClicks(tone, start, beat), line(tone, plan.lead, start + countIn * beat, beat, this.timbre?.()).silence);
      else if (plan.startHertz > 0) note(tone, plan.startHertz, begin, 2 * beat);
      for (const along of plan.along ?? []) silences.push(line(tone, along, first, beat).silence);
      this.begun?.(context, { first, late, beat });
      if (plan.model.length > 0 && this.leads() === "with") silences.push(line(tone, plan.model, first, beat).silence);
      this.running = true;
      this.mark();
      const stopped = await this.follow(context, { start, begin, first, end }, plan);
      // Stopped, what was finished is heard all the same.
      const beats = stopped ? Math.max(0, (stopped - first - late) / beat) : plan.totalBeats;
      if (stopped && !plan.ends.some((each) => each <= beats)) return;
      this.hearing = true;
      this.count = "…";
      const over = stopped ?? end + late + tailSeconds;
      await capture.reach(over);
      const { wav, missing } = capture.wav(first + late - leadSeconds, over);
      const take = { ...this.sent(wav, drill, leadSeconds, missing), finished: stopped ? beats : null };
      // What nobody is to keep does not wait in the browser either.
      if (take.asked.private !== "true") await keep(take);
      this.unsent = take;
      await this.send(take);
    } finally {
      this.$root.dataset.lags = JSON.stringify(live.lags.map((lag) => Math.round(lag * 1000)));
      this.$root.dataset.onset = live.onsetLag === null ? "" : Math.round(live.onsetLag * 1000);
      live.close();
      capture.close();
      silences.forEach((silence) => silence());
    }
  },

  async practice(context, drill) {
    const query = new URLSearchParams({
      handler: "Practice",
      ...this.asked(drill),
      request: this.request,
      character: this.field("character").value,
      seed: Math.floor(Math.random() * 1e6),
    });
    const response = await fetch(`/${stop}/${this.$root.dataset.pupil}?${query}`);
    if (!response.ok) throw new Error(await refusal(response, "The practice player could not play. Try once more."));
    return context.decodeAudioData(await response.arrayBuffer());
  },

  // Shows the counts by the audio clock until the take is over; gives back when it was stopped, or nothing if it went to its end.
  async follow(context, { start, begin, first, end }, plan) {
    const whole = await this.until(context, end + tailSeconds + 0.2, (now) => {
      if (now < start) return;
      const at = Math.floor((now - first) / plan.beatSeconds);
      const beat = plan.beats[Math.min(at, plan.beats.length - 1)];
      const listening = now < begin;
      const before = listening ? Math.floor((now - start) / plan.beatSeconds) % countIn : countIn + at;
      this.count = at < 0 ? `${before + 1}` : `${beat.count}`;
      this.label = listening
        ? "listen"
        : at < 0
          ? at >= -2
            ? "breathe"
            : "count in"
          : beat.phase === "Sing"
            ? `sing: ${beat.label}`
            : beat.label;
      this.say();
      this.$root.querySelector("[data-count]").classList.toggle("resting", at < 0 || beat.phase === "Rest" || beat.phase === "Breathe");
      for (const bead of this.$root.querySelectorAll(".bead")) bead.classList.toggle("passed", Number(bead.dataset.beat) <= at);
    });
    return whole ? null : context.currentTime;
  },

  until(context, end, show) {
    return new Promise((resolve) => {
      let stopped = false;
      this.stopNow = (why) => (stopped = why ?? true);
      const step = () => {
        const now = context.currentTime;
        if (stopped || now >= end) {
          this.stopNow = null;
          this.running = false;
          // Where the microphone went away, what was finished is heard as on Stop.
          if (typeof stopped === "string") this.trouble = stopped;
          resolve(!stopped);
          return;
        }
        show(now);
        requestAnimationFrame(step);
      };
      step();
    });
  },

  // A take as it is sent, and as it waits where it cannot be.
  sent(sound, drill, firstCue, missing = 0, name = "take.wav") {
    const asked = { ...this.asked(drill), request: this.request, source: this.source, tense: this.field("tense").checked };
    return {
      key: crypto.randomUUID(),
      stop,
      pupil: this.$root.dataset.pupil,
      at: Date.now(),
      sound,
      name,
      asked,
      firstCue,
      missing,
      finished: null,
    };
  },

  async send(take) {
    this.hearing = true;
    const body = new FormData();
    if (take.sound) body.append("sound", take.sound, take.name);
    for (const [name, value] of Object.entries(take.asked)) body.append(name, value);
    if (take.firstCue !== null) body.append("firstCue", take.firstCue);
    if (take.finished !== null) body.append("finished", take.finished);
    body.append("playedAt", take.at);
    body.append("missing", take.missing);
    const html = await this.post("Hear", body, "The take could not be heard. Try once more.", take.key);
    await forget(take.key);
    [this.unsent, this.made] = [null, take.sound];
    this.show(html);
  },

  // What was sent and not answered is sent again with the same key: done once, it is answered as the first time.
  async post(handler, body, otherwise, key = crypto.randomUUID()) {
    const response = await fetch(`/${stop}/${this.$root.dataset.pupil}?handler=${handler}`, {
      method: "POST",
      body,
      headers: { "X-Antiforgery": document.querySelector("meta[name=antiforgery]").content, "X-Once": key },
    });
    if (response.ok) return response.text();
    throw new Error(await refusal(response, otherwise));
  },

  // Puts a take on the stage; where the pupil guesses first, what was heard comes after the guess.
  show(html) {
    const heard = document.getElementById("heard");
    heard.innerHTML = html;
    const { take } = heard.querySelector("[data-take]").dataset;
    // What is not kept has no address.
    if (Number(take) > 0) history.pushState(null, "", `/${stop}/${heard.closest("[data-pupil]").dataset.pupil}?take=${take}`);
    heard.querySelector("[data-replay]")?.removeAttribute("hidden");
    if (heard.querySelector("#stage").dataset.place) heard.querySelector("[data-play-place]")?.removeAttribute("hidden");
    this.shown();
    window.scrollTo({ top: 0 });
  },

  async guess(event) {
    const body = new FormData();
    body.append("id", event.currentTarget.closest("[data-guess]").dataset.guess);
    body.append("said", event.currentTarget.dataset.said);
    try {
      this.show(await this.post("Guess", body, "The guess did not arrive. Try once more."));
    } catch (problem) {
      this.trouble = inWords(problem, "try once more");
    }
  },

  // Something new is on the stage.
  shown() {},

  mark() {
    this.$root.classList.toggle("taking", this.running);
    this.$root.querySelector("[data-go]").classList.toggle("running", this.running);
    this.$root.querySelector(".fields").inert = this.running;
    this.say();
  },

  // What to do while a take runs.
  say() {
    const words = this.$root.querySelector("[data-running]");
    if (words && words.textContent !== this.nextWords()) words.textContent = this.nextWords();
  },
});
