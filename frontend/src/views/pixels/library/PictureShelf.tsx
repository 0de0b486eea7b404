import { Film, ImagePlus } from "lucide-react";
import { useRef, useState } from "react";
import styled from "styled-components";

import { pixelEdits, usePixels, type MapEdits, type PixelMap } from "../../../api/pixels";
import { act } from "../../../live/socket";
import { ActionMenu } from "../../../ui/ActionMenu";
import { Button } from "../../../ui/Button";
import { Strip } from "../Strip";
import { MediaSheet } from "./MediaSheet";

const Frame = styled.section`
  > p {
    color: var(--quiet);
    font-size: 13px;
    margin-bottom: 6px;
  }
`;
const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 6px;
  margin-bottom: 4px;
`;
const Tiles = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(100px, 1fr));
  gap: 8px;
`;
const Tile = styled.div`
  position: relative;
  > button:first-child {
    display: block;
    width: 100%;
    padding: 0;
    min-height: 62px;
    border-color: transparent;
    text-align: left;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    font-size: 14px;
    color: var(--bone);
  }
  i {
    height: 42px;
    margin-bottom: 2px;
  }
  .more {
    position: absolute;
    right: 0;
    top: 0;
    opacity: 0;
    background: var(--ink);
  }
  &:hover .more,
  &:focus-within .more {
    opacity: 1;
  }
`;

/** Pictures of the library: they fit any canvas. Pointed at they are seen on it, pressed they become layers. */
export function PictureShelf({
  map,
  edits,
  onAdded,
}: {
  map: PixelMap;
  edits: MapEdits;
  onAdded: () => void;
}) {
  const { data } = usePixels();
  const [media, setMedia] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  async function takeIn(files: FileList | null) {
    for (const one of files ?? []) {
      const medium = await pixelEdits.takeIn(one);
      if (medium) await edits.addLayer({ medium: medium.hash });
    }
    onAdded();
  }
  return (
    <Frame aria-label="Pictures of the library">
      <Head>
        <Button data-variant="small" onPress={() => file.current!.click()}>
          <ImagePlus size={15} aria-hidden="true" /> From a file
        </Button>
        <Button data-variant="small" onPress={() => setMedia(true)}>
          <Film size={15} aria-hidden="true" /> Files
        </Button>
        <input
          ref={file}
          type="file"
          hidden
          multiple
          accept="image/png,image/jpeg,image/gif,video/*"
          aria-label="Pictures or films"
          onChange={(event) => void takeIn(event.target.files)}
        />
      </Head>
      <p>They fit any canvas. Point at one to see it here; press it to put its layers on top.</p>
      <Tiles>
        {data?.pictures.map((picture) => (
          <Tile
            key={picture.id}
            onPointerEnter={(event) =>
              event.pointerType === "mouse" && act({ do: "look-at-pixels", map: map.id, picture: picture.id })
            }
            onPointerLeave={(event) =>
              event.pointerType === "mouse" && act({ do: "look-at-pixels", map: map.id, picture: 0 })
            }
          >
            <Button
              data-variant="plain"
              aria-label={`Add ${picture.name}: ${picture.words}`}
              onPress={() => void edits.addLayer({ picture: picture.id }).then(onAdded)}
            >
              <Strip seconds={4} src={`/api/pixels/pictures/${picture.id}/strip.png?${picture.edition}`} />
              {picture.name}
            </Button>
            <span className="more">
              <ActionMenu
                label={picture.name}
                actions={[
                  { id: "on", text: `Put it on ${map.name}` },
                  { id: "out", text: "Take it out" },
                  { id: "delete", text: "Delete it", disabled: picture.used_by.length > 0 },
                ]}
                onAction={(action) => {
                  if (action === "delete") void pixelEdits.removePicture(picture.id);
                  else act({ do: "pixels", map: map.id, picture: picture.id, on: action === "on" });
                }}
              />
            </span>
          </Tile>
        ))}
      </Tiles>
      <MediaSheet
        isOpen={media}
        onClose={() => setMedia(false)}
        onUse={(hash) => void edits.addLayer({ medium: hash }).then(onAdded)}
      />
    </Frame>
  );
}
