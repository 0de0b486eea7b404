import createClient from "openapi-fetch";

import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export const api = createClient<paths>({ baseUrl: "" });

/** What went wrong with a request, in words for the user. */
export class Refused extends Error {
  constructor(
    message: string,
    readonly place = "",
    readonly status = 0,
  ) {
    super(message);
  }
}

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

export type Headers = Record<string, string>;
const LOOK_MS = 200;

/** Something that takes a while: how far it is is told meanwhile; it can be stopped. */
export function asJob<T>(run: (headers: Headers) => Promise<T>, onShare: (share: number) => void) {
  const name = crypto.randomUUID();
  const at = { params: { path: { name } } };
  const answer = run({ "X-Job": name });
  let going = true;
  async function look() {
    while (going) {
      const { data } = await api.GET("/api/jobs/{name}", at).catch(() => ({ data: undefined }));
      if (going && data?.share != null) onShare(data.share);
      await new Promise((done) => setTimeout(done, LOOK_MS));
    }
  }
  void look();
  return {
    answer: answer.finally(() => (going = false)),
    stop: () => void api.DELETE("/api/jobs/{name}", at).catch(() => undefined),
  };
}

/** Send a file as it is. */
export async function putFile<T>(path: string, file: File, headers: Headers = {}): Promise<T> {
  const asked = async () => {
    const response = await fetch(path, {
      method: "PUT",
      body: file,
      headers: {
        "Content-Type": "application/octet-stream",
        "X-Name": encodeURIComponent(file.name).replaceAll("%20", " "),
        ...headers,
      },
    });
    const data = (await response.json()) as T;
    return response.ok ? { data, response } : { error: data, response };
  };
  return take<T>(asked());
}

/** The data of an answer, or `Refused` with what the server said. */
export async function take<T>(asked: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await asked;
  } catch {
    throw new Refused("Zarabanda does not answer. It is being started again; try once more in a second.");
  }
  if (answer.data !== undefined && answer.response.ok) return answer.data;
  const fault = answer.error as { message?: string; place?: string } | undefined;
  throw new Refused(
    fault?.message ?? `Zarabanda answered with error ${answer.response.status}.`,
    fault?.place,
    answer.response.status,
  );
}
