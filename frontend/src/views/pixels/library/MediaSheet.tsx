import styled from "styled-components";

import { pixelEdits, useMedia } from "../../../api/pixels";
import { Button } from "../../../ui/Button";
import { Ending, Sheet } from "../../../ui/Sheet";

const Rows = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  width: 560px;
  max-height: 420px;
  overflow: auto;
  li {
    display: grid;
    grid-template-columns: 96px minmax(0, 1fr) auto auto;
    gap: 10px;
    align-items: center;
    padding: 6px 0;
    border-bottom: 1px solid var(--line);
  }
  img {
    max-width: 96px;
    max-height: 54px;
    background: var(--stage-ground);
  }
  small {
    display: block;
    color: var(--quiet);
  }
`;

interface Props {
  isOpen: boolean;
  onClose: () => void;
  onUse: (hash: string) => void;
}

/** Pictures and films of the show: what they are, and what uses them. */
export function MediaSheet({ isOpen, onClose, onUse }: Props) {
  const { data: media } = useMedia();
  return (
    <Sheet title="Pictures and films" isOpen={isOpen} onClose={onClose}>
      {media?.length ? (
        <Rows>
          {media.map((one) => (
            <li key={one.hash}>
              <img alt="" src={`/api/media/${one.hash}/small.png`} />
              <span>
                <strong>{one.name}</strong>
                <small>
                  {one.width} × {one.height}
                  {one.seconds > 0 && ` · ${one.seconds.toFixed(1)} s`}
                  {one.transparent && " · with transparency"}
                </small>
                <small>{one.used_by.length ? `used by ${one.used_by.join(", ")}` : "used by nothing"}</small>
              </span>
              <Button data-variant="small" onPress={() => onUse(one.hash)}>
                Add a layer
              </Button>
              <Button
                data-variant="small"
                isDisabled={one.used_by.length > 0}
                onPress={() => void pixelEdits.removeMedium(one.hash)}
              >
                Delete
              </Button>
            </li>
          ))}
        </Rows>
      ) : (
        <p>There is none yet. Drop a picture (PNG, JPEG, moving GIF) or a film onto the canvas.</p>
      )}
      <Ending>
        <Button onPress={onClose}>Close</Button>
      </Ending>
    </Sheet>
  );
}
