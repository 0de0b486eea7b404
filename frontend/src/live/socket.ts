import { useRef } from "react";
import { create } from "zustand";

import type { Schemas } from "../api/client";
import { catchUp, refresh, showHasChanged } from "../api/queries";
import { say } from "../ui/Toasts";
import { readFrame, type HeadsFrame, type Running } from "./frame";
import { wake } from "./loop";
import { recording } from "./recording";

/** What is live, as the engine tells it; types of the live socket come from the messages of the server. */
export type LiveState = Schemas["LiveState"];
export type Action = Schemas["LiveAct"]["action"];

interface Connection {
  connected: boolean;
  engine: boolean;
  everConnected: boolean;
  /** In words what does not run, where the supervisor said so. */
  down: string;
  /** Who this page is to the engine. */
  holder: string;
}

/** Whether the page hears from Zarabanda, and the live state as last told. Changes a few times a second. */
export const useConnection = create<Connection>(() => ({
  connected: false,
  engine: false,
  everConnected: false,
  down: "",
  holder: "",
}));
export const useLive = create<{ state: LiveState | null }>(() => ({ state: null }));

/** Some of the live state: the same object until something in it changes, though the whole is told anew. */
export function useLivePart<Part>(choose: (state: LiveState | null) => Part): Part {
  const last = useRef<{ text: string; part: Part } | null>(null);
  return useLive(({ state }) => {
    const part = choose(state);
    const text = JSON.stringify(part) ?? "";
    if (last.current?.text !== text) last.current = { text, part };
    return last.current.part;
  });
}

/** The tempos by name, and how fast they are. */
export const useTempos = () =>
  useLivePart((state) => state?.tempos.map(({ name, bpm }) => ({ name, bpm })) ?? null);

function connectionIs(now: Partial<Connection>) {
  const before = useConnection.getState();
  const changed = Object.entries(now).some(([key, value]) => before[key as keyof Connection] !== value);
  if (changed) useConnection.setState(now);
}

/** The newest frames, for canvases: read in the animation loop, never put into React state. */
export const live: { heads: HeadsFrame | null; universes: Map<number, Uint8Array>; arrived: number } = {
  heads: null,
  universes: new Map(),
  arrived: 0,
};

/** Something that runs, as it was told last. */
export const toldRunning = (key: string) => useLive.getState().state?.running.find((one) => one.key === key);

/** θ and weight of something that runs, from the newest frame. */
export function runningOf(key: string): Running | null {
  const chip = toldRunning(key);
  return (chip && live.heads?.running.find((one) => one.number === chip.number)) ?? null;
}

/** θ as the pictures of a layer have it: with the shift that edits have left. */
export function shownTheta(theta: number, key: string, layer: number): number {
  const chip = toldRunning(key);
  return theta + (chip?.theta_shifts[layer] ?? 0);
}

const FIRST_RETRY_MS = 200;
const LAST_RETRY_MS = 2000;
let socket: WebSocket | null = null;
let retry = FIRST_RETRY_MS;
let watched: number[] = [];

let openShow = "";

/** Another show is open: nothing that this page knows holds any more. */
function beginAnew(show: string) {
  if (openShow && show && show !== openShow) window.location.reload();
  openShow = show || openShow;
}

function take(message: Schemas["LiveToBrowser"]) {
  switch (message.type) {
    case "state": {
      const before = useLive.getState().state;
      useLive.setState({ state: message });
      connectionIs({ engine: true });
      if (before && (before.revision !== message.revision || before.session !== message.session))
        showHasChanged(before, message);
      catchUp(message, performance.now());
      break;
    }
    case "engine":
      return connectionIs({ engine: message.connected, down: message.message });
    case "show-is":
      return beginAnew(message.show);
    case "hello":
      beginAnew(message.show ?? "");
      return connectionIs({ engine: message.engine, holder: message.holder ?? "" });
    case "refused":
      say(message.message);
  }
}

/** Connect, and again whenever the connection is lost. */
export function connect() {
  const scheme = location.protocol === "https:" ? "wss" : "ws";
  socket = new WebSocket(`${scheme}://${location.host}/live`);
  socket.binaryType = "arraybuffer";
  socket.onopen = () => {
    retry = FIRST_RETRY_MS;
    const again = useConnection.getState().everConnected;
    useConnection.setState({ connected: true, everConnected: true });
    if (watched.length) post({ type: "watch", universes: watched });
    if (again) refresh();
  };
  socket.onmessage = ({ data }: MessageEvent<string | ArrayBuffer>) => {
    if (typeof data === "string") return take(JSON.parse(data) as Schemas["LiveToBrowser"]);
    const frame = readFrame(data);
    if (frame?.kind === "heads") {
      live.heads = frame;
      live.arrived = performance.now();
    } else if (frame) live.universes.set(frame.universe, frame.slots);
    wake();
  };
  socket.onclose = () => {
    useConnection.setState({ connected: false });
    setTimeout(connect, retry);
    retry = Math.min(retry * 2, LAST_RETRY_MS);
  };
}

function post(message: Schemas["LiveFromBrowser"]) {
  if (socket?.readyState === WebSocket.OPEN) socket.send(JSON.stringify(message));
}

/** A live action: acts on the next frame, is never undone. */
export function act(action: Action) {
  recording.note(action);
  if (socket?.readyState !== WebSocket.OPEN)
    say("Not connected: this did nothing. It connects again by itself.");
  post({ type: "action", action });
}

/** See an effect on heads without applying it; null ends that, and so does leaving the page. */
export function audition(effect: Omit<Schemas["LiveAudition"], "type"> | null) {
  post({ type: "audition", ...effect });
}

/** Which universes to show live. */
export function watch(universes: number[]) {
  watched = universes;
  post({ type: "watch", universes });
}
