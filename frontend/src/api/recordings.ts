import { useQuery } from "@tanstack/react-query";

import { say } from "../ui/Toasts";
import { api, putFile, take, type Headers, type Schemas } from "./client";
import { queries, tell } from "./queries";

export type Recording = Schemas["RecordingView"];
const KEY = ["recordings"];
const REFRESH_MS = 5_000;

/** All recordings, and the room that is left on the disk. */
export const useRecordings = () =>
  useQuery({ queryKey: KEY, queryFn: () => take(api.GET("/api/recordings")), refetchInterval: REFRESH_MS });

async function done(asked: Promise<{ done: string }>) {
  try {
    say(`${(await asked).done}.`, "done");
  } catch (error) {
    tell(error);
  } finally {
    void queries.invalidateQueries({ queryKey: KEY });
  }
}
const at = (name: string) => ({ params: { path: { name } } });

export const recordings = {
  begin: (name: string) => done(take(api.POST("/api/recordings", { body: { name } }))),
  end: () => done(take(api.POST("/api/recordings/end"))),
  remove: (name: string) => done(take(api.DELETE("/api/recordings/{name}", at(name)))),
  fileOf: (name: string) => `/api/recordings/${encodeURIComponent(name)}/file`,
  takeIn: (file: File, headers: Headers) => {
    const name = file.name.replace(/\.frames$/, "").replace(/[^\p{L}\p{N} \-,’'()_]+/gu, " ");
    return done(putFile(`/api/recordings/${encodeURIComponent(name.trim() || "taken in")}`, file, headers));
  },
};
