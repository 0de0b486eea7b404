import { useEffect } from "react";

import type { Timeline } from "../../api/timelines";
import { onEveryFrame } from "../../live/loop";
import { positionNow, seen, toldOf, useLine } from "./line";

/** Farther away than this the sound is put where the song is, s; nearer, it runs a little faster or slower until it is there. */
const FAR_S = 0.12;
const NEAR_S = 0.003;
const MOST_BEND = 0.05;
/** How quickly it comes there: in about half a second. */
const BEND = 2;
const SMOOTH = 0.15;
const FADE_S = 0.012;

/** How the sound runs to where the song is: how much faster than the song; null: it must be put there. */
export function bendFor(behind: number): number | null {
  if (Math.abs(behind) > FAR_S) return null;
  if (Math.abs(behind) < NEAR_S) return 0;
  return Math.max(-MOST_BEND, Math.min(MOST_BEND, behind * BEND));
}

/** Play the sound of a song in step with where it is on stage. It never drives the light. */
export function useSound(song: Timeline | undefined) {
  const hash = song?.sound_is_there ? (song.document.sound?.hash ?? null) : null;
  const begins = song?.document.sound_at ?? 0;
  const id = song?.id ?? 0;
  const length = song?.document.length_s ?? 0;
  useEffect(() => {
    if (!hash) return;
    const audio = new Audio(`/api/sounds/${hash}`);
    audio.preload = "auto";
    audio.preservesPitch = true;
    let refused = false;
    let behind = 0;
    const watch = { song: id, off: 0 };
    (window as { soundOff?: typeof watch }).soundOff = watch; // for measuring
    const step = () => {
      const told = toldOf(id);
      const p = positionNow(id, length);
      const speed = told?.speed ?? 0;
      const at = p === null ? -1 : p - begins;
      const plays = speed > 0.05 && at >= 0 && at < audio.duration && seen.dragged === null && !refused;
      audio.volume = useLine.getState().volume;
      if (!plays) {
        if (!audio.paused) audio.pause();
        return;
      }
      const now = at - audio.currentTime;
      behind = Math.abs(now - behind) > FAR_S ? now : behind + SMOOTH * (now - behind); // both clocks tell in steps
      watch.off = behind;
      const bend = bendFor(behind);
      if (audio.paused) {
        audio.currentTime = at;
        audio.playbackRate = speed;
        audio.play().catch(() => {
          refused = true; // the browser wants a press first
          window.addEventListener("pointerdown", () => (refused = false), { once: true });
        });
      } else if (bend === null) {
        if (!audio.seeking) audio.currentTime = at + FADE_S;
      } else audio.playbackRate = Math.min(Math.max(speed * (1 + bend), 0.1), 4);
    };
    const stop = onEveryFrame(step);
    const timer = window.setInterval(step, 100); // also where nothing is drawn
    return () => {
      stop();
      clearInterval(timer);
      audio.pause();
      audio.removeAttribute("src");
      audio.load();
    };
  }, [hash, begins, id, length]);
}
