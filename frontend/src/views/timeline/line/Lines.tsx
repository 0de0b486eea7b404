import { useEffect, useMemo, useRef } from "react";
import styled from "styled-components";

import { useOutline, useOutlines, useSongTold, type Timeline } from "../../../api/timelines";
import { onEveryFrame, wake } from "../../../live/loop";
import { SmallToggle } from "../../../ui/SmallToggle";
import { useSize } from "../../../ui/useSize";
import { line, positionNow, seen, useLine } from "../line";
import { byTrack, heightOf, markerAt, rowsOf, TOP_PX } from "../rows";
import { barAndBeat, levelFor, positionAt, positionText, within, xOf, zoomed } from "../scale";
import { paintTop } from "./paintTop";
import { paintTracks } from "./paintTracks";
import { inksOf, type Picture } from "./picture";
import { TrackHeads } from "./TrackHeads";
import { useLinePointer } from "./useLinePointer";
import { useTopPointer } from "./useTopPointer";

const HEADS_PX = 196;
const Frame = styled.div`
  display: grid;
  grid-template-columns: ${HEADS_PX}px minmax(0, 1fr);
  grid-template-rows: ${TOP_PX}px minmax(0, 1fr);
  height: 100%;
  min-height: 0;
  position: relative;
  canvas {
    display: block;
    touch-action: none;
  }
`;
const Corner = styled.div`
  display: flex;
  flex-direction: column;
  justify-content: space-between;
  padding: 22px 12px 20px;
  > button {
    min-height: 26px;
  }
  color: var(--quiet);
  font-size: 14px;
  border-bottom: 1px solid var(--line);
`;
const Scrolls = styled.div`
  grid-column: 1 / 3;
  display: grid;
  grid-template-columns: ${HEADS_PX}px minmax(0, 1fr);
  overflow-y: auto;
  overflow-x: hidden;
  min-height: 0;
  position: relative;
  > canvas {
    position: sticky;
    top: 0;
  }
`;
const Head = styled.div`
  position: absolute;
  top: 0;
  bottom: 0;
  left: ${HEADS_PX}px;
  right: 0;
  overflow: hidden;
  pointer-events: none;
  i {
    position: absolute;
    top: 16px;
    bottom: 0;
    width: 2px;
    margin-left: -1px;
    background: var(--bone);
    will-change: transform;
  }
  output {
    position: absolute;
    bottom: 2px;
    padding: 1px 6px;
    background: var(--ink);
    font: 13px var(--numbers);
    white-space: pre;
    will-change: transform;
  }
`;
const WHEEL = 1.0016;

/** A song in time: its parts and its sound on top, its tracks below, and the playhead over all. */
export function Lines({ song }: { song: Timeline }) {
  const [size, measure] = useSize();
  const top = useRef<HTMLCanvasElement>(null);
  const tracks = useRef<HTMLCanvasElement>(null);
  const scrolls = useRef<HTMLDivElement>(null);
  const needle = useRef<HTMLElement>(null);
  const words = useRef<HTMLOutputElement>(null);
  const changes = useRef<Partial<Picture>>({});
  const shown = useRef<Picture | null>(null);
  const chosen = useLine((state) => state.chosen);
  const told = useSongTold(song.id);
  const length = song.document.length_s ?? 0;
  const rate = song.document.rate ?? "25";
  const rows = useMemo(() => rowsOf(song), [song]);
  const events = useMemo(() => byTrack(song.events), [song]);
  const width = Math.max(size.width - HEADS_PX, 1);
  const hash = song.sound_is_there ? (song.document.sound?.hash ?? null) : null;
  const { data: outlines } = useOutlines(hash);
  const level = useRef(0);
  const wanted = outlines ? levelFor(outlines.block_s, (seen.span.to - seen.span.from) / width) : -1;
  const { data: coarse } = useOutline(hash, wanted);
  const shapes = useLine((state) => state.shapes);
  const picture = () => shown.current;
  const drawn = (now: Partial<Picture>) => void Object.assign(changes.current, now);
  const above = useTopPointer(song, picture, drawn);
  const below = useLinePointer(song, picture, drawn);

  useEffect(() => {
    delete changes.current.shaped; // what was dragged is in the song now
  }, [song]);
  useEffect(() => {
    line.see({ from: 0, to: length });
  }, [song.id, length]);

  useEffect(() => {
    const painted = { text: "", part: -1 };
    const fit = (canvas: HTMLCanvasElement, high: number) => {
      const ratio = window.devicePixelRatio;
      const [wide, tall] = [Math.round(width * ratio), Math.round(high * ratio)];
      if (canvas.width !== wide || canvas.height !== tall) {
        canvas.width = wide;
        canvas.height = tall;
        canvas.style.width = `${width}px`;
        canvas.style.height = `${high}px`;
      }
      const context = canvas.getContext("2d")!;
      context.setTransform(ratio, 0, 0, ratio, 0, 0);
      return context;
    };
    const stop = onEveryFrame(() => {
      if (!top.current || !tracks.current || !scrolls.current) return;
      const p = seen.dragged ?? positionNow(song.id, length);
      if (p !== null && useLine.getState().follows && seen.dragged === null && told?.speed) follow(p);
      const part = p === null ? null : (markerAt(song.markers, p)?.id ?? null);
      const scrolled = scrolls.current.scrollTop;
      const height = Math.max(scrolls.current.clientHeight, 1);
      const picture: Picture = {
        song, rows, events, span: seen.span, width, scrolled, height, chosen, part,
        shapes, shaped: null, dragging: null, box: null, looped: told?.loop ?? null, inks: inksOf(scrolls.current),
        ...changes.current,
      }; // prettier-ignore
      shown.current = picture;
      const text = `${seen.span.from} ${seen.span.to} ${scrolled} ${height} ${width} ${part} ${wanted} ${picture.inks.ink} ${JSON.stringify([picture.box, shapes, picture.shaped])} ${picture.dragging ? `${picture.dragging.by} ${picture.dragging.value} ${picture.dragging.length}` : ""}`;
      if (text !== painted.text) {
        painted.text = text;
        const outline =
          coarse && outlines ? { data: coarse, blockS: outlines.block_s[level.current]! } : null;
        paintTop(fit(top.current, TOP_PX), picture, outline);
        paintTracks(fit(tracks.current, height), picture);
      }
      place(p);
    });
    wake();
    return stop;

    function follow(p: number) {
      const wide = seen.span.to - seen.span.from;
      if (p > seen.span.to - wide * 0.08 && seen.span.to < length)
        seen.span = within({ from: p - wide * 0.1, to: p + wide * 0.9 }, length);
      else if (p < seen.span.from) seen.span = within({ from: p - wide * 0.1, to: p + wide * 0.9 }, length);
    }
    function place(p: number | null) {
      if (!needle.current || !words.current) return;
      const x = p === null ? -10 : xOf(p, seen.span, width);
      needle.current.style.transform = `translateX(${x}px)`;
      if (p === null) return;
      const left = Math.min(Math.max(x + 4, 0), width - 190);
      words.current.style.transform = `translateX(${left}px)`;
      const bar = barAndBeat(p, song)?.[0];
      const text = `${positionText(p, rate)}${bar === undefined ? "" : ` · bar ${bar}`}`;
      if (words.current.textContent !== text) words.current.textContent = text;
    }
  }, [song, rows, events, width, chosen, told, shapes, coarse, outlines, wanted, length, rate]);
  useEffect(() => {
    level.current = Math.max(wanted, 0);
  }, [wanted, coarse]);

  useEffect(() => {
    const element = scrolls.current!.parentElement!;
    const onWheel = (event: WheelEvent) => {
      const { left } = element.getBoundingClientRect();
      const x = event.clientX - left - HEADS_PX;
      const wide = seen.span.to - seen.span.from;
      if (x < 0) return;
      if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) {
        event.preventDefault();
        const by = ((event.deltaX || event.deltaY) / width) * wide;
        line.see(within({ from: seen.span.from + by, to: seen.span.to + by }, length));
      } else if (
        event.ctrlKey ||
        event.clientY - element.getBoundingClientRect().top < TOP_PX ||
        heightOf(rows) <= element.clientHeight - TOP_PX
      ) {
        event.preventDefault();
        const around = positionAt(x, seen.span, width);
        line.see(zoomed(seen.span, WHEEL ** event.deltaY, around, length, rate));
      }
    };
    element.addEventListener("wheel", onWheel, { passive: false });
    return () => element.removeEventListener("wheel", onWheel);
  }, [width, length, rate, rows]);

  return (
    <Frame ref={measure}>
      <Corner>
        <SmallToggle isSelected={shapes} onChange={(on) => useLine.setState({ shapes: on })}>
          Move parts and bars
        </SmallToggle>
        {song.document.sound ? (song.sound_is_there ? "Sound" : "Its sound is missing") : "No sound"}
      </Corner>
      <canvas
        ref={top}
        aria-label="Parts and sound: drag to go to a position"
        onPointerDown={above.down}
        onPointerMove={above.move}
        onPointerUp={above.up}
        onPointerCancel={above.up}
      />
      <Scrolls ref={scrolls} onScroll={wake}>
        <TrackHeads song={song} rows={rows} />
        <canvas
          ref={tracks}
          aria-label="Events on their tracks"
          onPointerDown={below.down}
          onPointerMove={below.move}
          onPointerUp={below.up}
          onPointerCancel={below.up}
          onDoubleClick={below.twice}
        />
      </Scrolls>
      <Head aria-hidden="true">
        <i ref={needle} />
        <output ref={words} />
      </Head>
    </Frame>
  );
}
