import { say } from "../ui/Toasts";
import { download } from "../ui/saveFile";
import { api, take, type Headers, type Schemas } from "./client";
import { refresh, tell } from "./queries";

export type BakeAsk = Schemas["BakeAsk"];
export type BakeView = Schemas["BakeView"];
export type BakedAttribute = Schemas["BakedAttribute"];
export type BakeFormat = Schemas["BakeFile"]["format"];
export type CurvePoint = Schemas["CurvePoint"];

/** Something that can be baked, and what it is called. */
export interface Bakeable {
  kind: BakeAsk["kind"];
  number: number;
  name: string;
  picture?: number;
  begin?: number;
  seconds?: number;
  heads?: string[];
}

async function told<Answer>(asked: Promise<Answer>): Promise<Answer | null> {
  try {
    return await asked;
  } catch (error) {
    tell(error);
    return null;
  }
}

export const bakes = {
  look: (body: BakeAsk, headers: Headers) => take(api.POST("/api/bakes/look", { body, headers })),
  curve: (body: Schemas["CurveAsk"], headers: Headers) =>
    told(take(api.POST("/api/bakes/curve", { body, headers }))),
  /** The bake as a file, given to the user. */
  async file(body: BakeAsk, format: BakeFormat, headers: Headers): Promise<void> {
    const asked = async () => {
      const response = await fetch("/api/bakes/file", {
        method: "POST",
        body: JSON.stringify({ ...body, format }),
        headers: { "Content-Type": "application/json", ...headers },
      });
      if (!response.ok) return { error: (await response.json()) as unknown, response };
      const name = /filename="?([^";]+)/.exec(response.headers.get("Content-Disposition") ?? "")?.[1];
      return { data: { name: name ?? "bake", content: await response.blob() }, response };
    };
    const found = await told(take<{ name: string; content: Blob }>(asked() as never));
    if (found) download(found.name, found.content);
  },
  async cues(body: BakeAsk, name: string, headers: Headers): Promise<number | null> {
    const made = await told(take(api.POST("/api/bakes/cues", { body: { ...body, name }, headers })));
    refresh();
    if (made) say(`${made.done}.`, "done");
    return made?.id ?? null;
  },
  async renew(list_id: number) {
    const made = await told(
      take(api.POST("/api/bakes/cues/{list_id}/renew", { params: { path: { list_id } } })),
    );
    refresh();
    if (made) say(`${made.done}.`, "done");
  },
  async back(list_id: number) {
    const made = await told(
      take(api.POST("/api/bakes/cues/{list_id}/back", { params: { path: { list_id } } })),
    );
    refresh();
    if (made) say(`${made.done}.`, "done");
  },
};
