import { QueryClientProvider } from "@tanstack/react-query";
import { act, render, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { ReactNode } from "react";
import { StyleSheetManager } from "styled-components";
import { expect, vi } from "vitest";

import { queries } from "../api/queries";
import { connect, useConnection, type Action, type LiveState } from "../live/socket";
import { useDesk } from "../state";
import { hush } from "../ui/Toasts";
import { server } from "./server";

/** The engine's end of the live socket: tells states, and hears actions. */
class FakeSocket {
  static readonly OPEN = 1;
  static last: FakeSocket | null = null;
  readyState = FakeSocket.OPEN;
  binaryType = "";
  onopen: () => void = () => undefined;
  onmessage: (event: { data: string }) => void = () => undefined;
  onclose: () => void = () => undefined;
  /** By whichever socket: a page that has lost one joins again. */
  static heard: { type: string; action?: Action }[] = [];

  constructor() {
    FakeSocket.last = this;
  }
  send(text: string) {
    FakeSocket.heard.push(JSON.parse(text) as { type: string; action?: Action });
  }
  close() {
    this.readyState = 3;
    this.onclose();
  }
}

/** Where styles go: jsdom would reckon them anew for every role that is asked for, and lays nothing out by them. */
const unseen = document.createElement("div");
const begin = { desk: useDesk.getState(), connection: useConnection.getState() };

/** A part of the page, or all of it, on the recorded demo: what it asks is answered, what it does is heard. */
export function onDemo(part: ReactNode, more: Partial<LiveState> = {}) {
  server.gives("POST /api/effects/*", (asked: { path: string }) =>
    asked.path.endsWith("/weave") ? { ...WEAVE } : undefined,
  );
  queries.clear();
  hush();
  useDesk.setState(begin.desk, true);
  useConnection.setState(begin.connection, true);
  FakeSocket.heard = [];
  vi.stubGlobal("WebSocket", FakeSocket);
  connect();
  const socket = FakeSocket.last!;
  let state: LiveState = { ...server.state, ...more };
  const say = (message: object) => act(() => socket.onmessage({ data: JSON.stringify(message) }));
  act(() => socket.onopen());
  say({ type: "hello", engine: true, holder: "page", show: "" });
  say(state);
  const user = userEvent.setup();
  const shown = render(
    <StyleSheetManager target={unseen}>
      <QueryClientProvider client={queries}>{part}</QueryClientProvider>
    </StyleSheetManager>,
  );
  return {
    user,
    ...shown,
    /** The engine tells that something has changed. */
    tell: (changes: Partial<LiveState>) => {
      state = { ...state, ...changes };
      say(state);
    },
    say,
    /** The connection is lost. */
    lose: () => act(() => socket.close()),
    /** Actions that the engine heard. */
    actions: () => FakeSocket.heard.filter((one) => one.type === "action").map((one) => one.action!),
  };
}

/** A weave with nothing in it. */
export const WEAVE = {
  heads: [],
  rows: 0,
  columns: 0,
  pixels: "",
  notices: [],
  scopes: [],
  seconds: 1,
  beats: 1,
};

/** Wait until the server is asked for an edit of a path below /api/ that says at least this. */
export const isAsked = (path: string, body: object) =>
  waitFor(() => expect(server.bodies(path).at(-1)).toMatchObject(body));
