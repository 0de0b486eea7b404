import { useMemo } from "react";
import styled from "styled-components";

import { useWeave } from "../../../api/queries";
import { weaveCanvas, weaveImage } from "./pixels";

const Picture = styled.img`
  width: 64px;
  height: 36px;
  image-rendering: pixelated;
  background: var(--deep);
  flex: none;
`;
const ASK = { heads: [], columns: 48, attribute: "look", phantom: 9, start: 0, notices: false };
const NOTHING = "data:,";

/** An effect's weave, small, on a made-up row of nine heads. An image: many canvases slow the whole page down. */
export function WeaveThumb({ id, document }: { id: number; document: unknown }) {
  const { data } = useWeave(id, document, ASK, "thumb");
  const source = useMemo(() => (data ? weaveCanvas(weaveImage(data)).toDataURL() : NOTHING), [data]);
  return <Picture src={source} alt="" />;
}
