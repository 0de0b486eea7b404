import { useEffect, useRef } from "react";
import styled from "styled-components";

const Picture = styled.canvas`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  opacity: 0.5;
`;
/** So long after an answer the next one is asked for. */
const PAUSE_MS = 80;

/** What the layers draw between the cells, as the engine computes it; darker than the cells, which are the light. */
export function Beneath({ map }: { map: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const ended = new AbortController();
    let timer = 0;
    async function draw() {
      try {
        const response = document.hidden
          ? null
          : await fetch(`/api/pixels/${map}/beneath.png`, { signal: ended.signal });
        if (response?.ok) {
          const image = await createImageBitmap(await response.blob());
          const own = canvas.current;
          if (own) {
            [own.width, own.height] = [image.width, image.height];
            own.getContext("2d")!.drawImage(image, 0, 0);
          }
          image.close();
        }
      } catch {
        // not connected: the newest picture stays, as the cells do
      }
      if (!ended.signal.aborted) timer = window.setTimeout(() => void draw(), PAUSE_MS);
    }
    void draw();
    return () => {
      ended.abort();
      window.clearTimeout(timer);
    };
  }, [map]);
  return <Picture ref={canvas} data-beneath aria-hidden="true" />;
}
