import { useState } from "react";
import styled from "styled-components";

import { lookEdits, useLooks, type Look } from "../../../api/looks";
import { Button } from "../../../ui/Button";
import { NameSheet } from "../../busk/edit/NameSheet";
import { KeepLookSheet } from "./KeepLookSheet";
import { LookLine } from "./LookLine";

const Shelf = styled.section`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
  height: 100%;
  ul {
    overflow: auto;
    list-style: none;
    margin: 0;
    padding: 0;
  }
  p {
    color: var(--quiet);
    padding: 8px 0;
  }
`;

/** Looks and overlays that are kept: each made of values and effects, to be put on faders and buttons. */
export function LooksShelf() {
  const { data: looks } = useLooks();
  const [making, setMaking] = useState(false);
  const [renaming, setRenaming] = useState<Look | null>(null);
  if (!looks) return null;
  return (
    <Shelf aria-label="Looks and overlays">
      <Button data-variant="small" onPress={() => setMaking(true)}>
        Keep a look
      </Button>
      <ul>
        {looks.map((look) => (
          <LookLine key={look.id} look={look} looks={looks} onRename={() => setRenaming(look)} />
        ))}
        {!looks.length && (
          <p>
            A look keeps values and effects as one thing: on a button, on a fader, or as an overlay that is
            mixed in over what runs. Set something by hand, or let something run, then keep it.
          </p>
        )}
      </ul>
      {making && <KeepLookSheet onClose={() => setMaking(false)} />}
      {renaming && (
        <NameSheet
          title="Rename the look"
          name={renaming.name}
          onClose={() => setRenaming(null)}
          onKeep={(name) => lookEdits.change(renaming.id, { name })}
        />
      )}
    </Shelf>
  );
}
