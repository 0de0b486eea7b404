import recordedText from "../../testing/answers.json?raw";
import type { LiveState } from "../live/socket";

/** What the demo answered when it was asked last (`make answers`). */
const recorded = JSON.parse(recordedText) as { answers: Record<string, unknown>; state: LiveState };

export interface Asked {
  method: string;
  path: string;
  body: unknown;
}
type Answer = unknown | ((asked: Asked) => unknown);
/** An answer that refuses, with the server's words. */
export class Fault {
  constructor(
    readonly message: string,
    readonly status = 422,
    readonly place = "",
  ) {}
}

const copied = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

/** A server that gives recorded answers, or those that a test gives it, and notes what it was asked. */
class RecordedServer {
  private given = new Map<string, Answer>();
  asked: Asked[] = [];

  /** Forget what tests said and asked. */
  reset() {
    this.given.clear();
    this.asked = [];
  }

  /** Answer otherwise from now on: `"GET /api/show"`, or a method with a path that begins so and ends with *. */
  gives(what: string, answer: Answer) {
    this.given.set(what, answer);
  }

  /** A copy of what is recorded of a path, to be changed by a test. */
  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- as it was said
  recorded<T = any>(path: string): T {
    return copied(recorded.answers[path]) as T;
  }

  get state(): LiveState {
    return copied(recorded.state);
  }

  /** What was asked for that changes something. */
  get edits() {
    return this.asked.filter((one) => one.method !== "GET");
  }

  /** What was said with those edits of one path below /api/. */
  bodies(path: string) {
    return this.edits.filter((one) => one.path === `/api/${path}`).map((one) => one.body);
  }

  async answered(request: Request): Promise<Response> {
    const path = new URL(request.url).pathname + new URL(request.url).search;
    const text = await request.text();
    const asked: Asked = {
      method: request.method,
      path,
      body: text.startsWith("{") ? JSON.parse(text) : text,
    };
    this.asked.push(asked);
    const found = this.find(asked);
    if (found === undefined)
      return reply({ message: `no answer is recorded for ${asked.method} ${path}` }, 404);
    if (found instanceof Fault) return reply({ message: found.message, place: found.place }, found.status);
    return reply(found, 200);
  }

  private find(asked: Asked): unknown {
    const name = `${asked.method} ${asked.path}`;
    const longest = [...this.given.keys()]
      .filter((one) => one === name || (one.endsWith("*") && name.startsWith(one.slice(0, -1))))
      .sort((a, b) => b.length - a.length)[0];
    if (longest !== undefined) {
      const answer = this.given.get(longest);
      return typeof answer === "function" ? (answer as (asked: Asked) => unknown)(asked) : answer;
    }
    return recorded.answers[asked.method === "GET" ? asked.path : name];
  }
}

const reply = (body: unknown, status: number) =>
  new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } });

export const server = new RecordedServer();
