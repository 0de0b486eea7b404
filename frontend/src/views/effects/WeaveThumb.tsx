import { useEffect, useRef } from "react";
import styled from "styled-components";

import { useWeave } from "../../api/queries";
import { weaveImage } from "./pixels";

const Picture = styled.canvas`
  width: 64px;
  height: 36px;
  image-rendering: pixelated;
  background: var(--deep);
  flex: none;
`;
const ASK = { heads: [], columns: 48, attribute: "look", phantom: 9, start: 0, notices: false };

/** An effect's weave, small, on a made-up row of nine heads. */
export function WeaveThumb({ id, document }: { id: number; document: unknown }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { data } = useWeave(id, document, ASK, "thumb");
  useEffect(() => {
    if (data) canvas.current?.getContext("2d")?.putImageData(weaveImage(data), 0, 0);
  }, [data]);
  return <Picture ref={canvas} width={48} height={9} aria-hidden="true" />;
}
