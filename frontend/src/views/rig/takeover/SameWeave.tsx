import { useMemo } from "react";
import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import type { Matches } from "../../../api/rerig";
import { weaveCanvas, weaveImage, wovenBy } from "../../effects/weave/pixels";

const Both = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  figure {
    margin: 0;
    min-width: 0;
  }
  img {
    width: 100%;
    height: 84px;
    image-rendering: pixelated;
    background: var(--deep);
    display: block;
  }
  figcaption {
    font-size: 14px;
    color: var(--quiet);
  }
`;

function Picture({ weave, where }: { weave: Schemas["WeaveView"]; where: string }) {
  const source = useMemo(() => weaveCanvas(weaveImage(weave)).toDataURL(), [weave]);
  const heads = `${weave.heads.length} heads${wovenBy(weave.attribute)}`;
  return (
    <figure>
      <img src={source} alt={`The weave ${where}, ${heads}`} />
      <figcaption>
        {where}: {heads}
      </figcaption>
    </figure>
  );
}

/** The same effect on the lights there were and on those that take over, and what became of its symmetry. */
export function SameWeave({ matches }: { matches: Matches }) {
  if (!matches.here || !matches.there) return null;
  return (
    <>
      <Both>
        <Picture weave={matches.here} where="Now" />
        <Picture weave={matches.there} where="Then" />
      </Both>
      <p role="status">{matches.sentence}</p>
    </>
  );
}
