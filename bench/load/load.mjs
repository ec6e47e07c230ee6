// Streams a WAV from many listening lines at once, in real time, to a Bocca that runs on this machine:
//   node load.mjs http://localhost:5080 take.wav [lines=30] [seconds=20]
// Prints the median and the 95th percentile of the time from a block's sending to its answer.
import { readFileSync } from "node:fs";
import { performance } from "node:perf_hooks";
import { HttpTransportType, HubConnectionBuilder, LogLevel } from "@microsoft/signalr";
import WebSocket from "ws";

const [address, file, lines = "30", seconds = "20"] = process.argv.slice(2);
if (!address || !file) {
  console.error("usage: node load.mjs ADDRESS FILE.wav [LINES] [SECONDS]");
  process.exit(2);
}
const wav = readFileSync(file);
const rate = wav.readUInt32LE(24);
const samples = wav.subarray(44);
const block = 2 * Math.round(rate / 50);
// One address may hold 64 lines: more of them come from several addresses of this machine.
const linesOfAddress = 60;
const from = (number) =>
  class extends WebSocket {
    constructor(url, protocols, options) {
      super(url, protocols, { ...options, localAddress: `127.0.0.${1 + Math.floor(number / linesOfAddress)}` });
    }
  };
const times = [];
let late = 0;

async function line(number) {
  const connection = new HubConnectionBuilder().withUrl(`${address}/live/listen`, { transport: HttpTransportType.WebSockets, skipNegotiation: true, WebSocket: from(number) }).configureLogging(LogLevel.None).build();
  await connection.start();
  await connection.invoke("Begin", 1, "Mouthpiece", rate);
  // Lines begin apart, as pupils would.
  await new Promise((resolve) => setTimeout(resolve, (number * 20) / Number(lines)));
  const began = performance.now();
  const answers = [];
  for (let i = 0; i < Number(seconds) * 50; i++) {
    const due = began + i * 20;
    const wait = due - performance.now();
    if (wait > 0) await new Promise((resolve) => setTimeout(resolve, wait));
    else if (wait < -20) late++;
    const at = (i * block) % (samples.length - block);
    const sent = performance.now();
    answers.push(connection.invoke("Hear", samples.subarray(at - (at % 2), at - (at % 2) + block).toString("base64")).then(() => times.push(performance.now() - sent)));
  }
  await Promise.all(answers);
  await connection.stop();
}

await Promise.all(Array.from({ length: Number(lines) }, (_, i) => line(i)));
times.sort((a, b) => a - b);
console.log(`${lines} lines, ${times.length} blocks of 20 ms: median ${times[times.length >> 1].toFixed(1)} ms, 95th percentile ${times[Math.floor(times.length * 0.95)].toFixed(1)} ms, slowest ${times.at(-1).toFixed(1)} ms; ${late} sent late`);
