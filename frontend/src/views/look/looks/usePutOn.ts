import { freePlaces, pageEdits, usePages, type Mode } from "../../../api/pages";
import { say } from "../../../ui/Toasts";

/** Puts a look on the next free fader or button of the pages; where that is, in words. */
export function usePutOn() {
  const { data } = usePages();
  return async (look: number, name: string, mode: Mode): Promise<string> => {
    const fader = mode === "fader";
    const most = (fader ? data?.faders : data?.buttons) ?? 0;
    for (const page of data?.pages ?? []) {
      const place = freePlaces(page.controls, fader, most)[0];
      if (place === undefined) continue;
      const drives = { kind: "look" as const, number: look, heads: [], do: "go" as const, seconds: 2 };
      const done = await pageEdits.put(page.id, { place, mode, name, drives, job: "depth", release_s: 0.4 });
      return done ? `${fader ? "fader" : "button"} ${place} of ${page.name}` : "";
    }
    say(`All ${fader ? "faders" : "buttons"} are taken. Make a page in Busk first.`);
    return "";
  };
}
