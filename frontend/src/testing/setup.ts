/** What jsdom lacks, and what every test of the page shares: nothing is said on the console, nothing goes to a network. */
import "@testing-library/jest-dom/vitest";
import { cleanup, configure } from "@testing-library/react";
import { afterEach, beforeEach, expect, vi } from "vitest";

import { server } from "./server";

configure({ asyncUtilTimeout: 20_000 }); // a busy machine renders late; what comes soon is seen soon

/** Requests of a page are relative to it. */
class PageRequest extends Request {
  constructor(input: RequestInfo | URL, init?: RequestInit) {
    super(typeof input === "string" ? new URL(input, "http://127.0.0.1") : input, init);
  }
}
vi.stubGlobal("Request", PageRequest);
vi.stubGlobal("fetch", (input: RequestInfo, init?: RequestInit) =>
  server.answered(input instanceof Request ? input : new PageRequest(input, init)),
);

class NoObserver {
  observe = () => undefined;
  unobserve = () => undefined;
  disconnect = () => undefined;
}
vi.stubGlobal("ResizeObserver", NoObserver);
vi.stubGlobal("IntersectionObserver", NoObserver);
vi.stubGlobal("matchMedia", (media: string) => ({
  matches: false,
  media,
  addEventListener: () => undefined,
  removeEventListener: () => undefined,
}));
/** A canvas that can be drawn on and shows nothing: what only a picture shows is looked at in a browser. */
class Pixels {
  readonly data: Uint8ClampedArray;
  constructor(
    readonly width: number,
    readonly height: number,
  ) {
    this.data = new Uint8ClampedArray(4 * width * height);
  }
}
vi.stubGlobal("ImageData", Pixels);
const DRAWN: Record<string, (...sizes: number[]) => unknown> = {
  measureText: () => ({ width: 10 }),
  createImageData: (width, height) => new Pixels(width!, height!),
  getImageData: (_x, _y, width, height) => new Pixels(width!, height!),
};
const nothing = () => new Proxy({} as Record<string, unknown>, { get: () => nothing });
const paper = () =>
  new Proxy({} as Record<string, unknown>, {
    get: (own, name: string) => own[name] ?? DRAWN[name] ?? nothing,
    set: (own, name: string, value) => ((own[name] = value), true),
  });
HTMLCanvasElement.prototype.getContext = function (this: HTMLCanvasElement) {
  const kept = this as HTMLCanvasElement & { paper?: unknown };
  return (kept.paper ??= paper());
} as never;
HTMLCanvasElement.prototype.toDataURL = () => "data:,";
/** Lists that draw what is seen of them need a size to be seen in. */
for (const [name, size] of [
  ["offsetWidth", 1280],
  ["offsetHeight", 800],
] as const)
  Object.defineProperty(HTMLElement.prototype, name, { configurable: true, get: () => size });
Element.prototype.scrollIntoView = () => undefined;
Element.prototype.setPointerCapture = () => undefined;
Element.prototype.releasePointerCapture = () => undefined;
Element.prototype.getAnimations = () => [];

const said = { error: vi.spyOn(console, "error"), warn: vi.spyOn(console, "warn") };
beforeEach(() => Object.values(said).forEach((one) => one.mockClear()));
afterEach(() => {
  cleanup();
  server.reset();
  expect(said.error.mock.calls, "nothing is said on the console").toEqual([]);
  expect(said.warn.mock.calls, "nothing is said on the console").toEqual([]);
});
