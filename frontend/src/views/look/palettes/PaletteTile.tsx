import { Button } from "react-aria-components";
import styled from "styled-components";

import type { Palette } from "../../../api/palettes";
import { PalettePicture } from "./PalettePicture";
import { actsIn } from "./palettes";

const Tile = styled(Button)`
  display: grid;
  grid-template-rows: 30px auto;
  gap: 2px;
  width: 72px;
  padding: 3px;
  border: 1px solid transparent;
  border-radius: 2px;
  background: none;
  color: var(--bone);
  font: inherit;
  font-size: 13px;
  line-height: 1.15;
  text-align: left;
  cursor: pointer;
  &[data-hovered] {
    background: var(--raised);
    border-color: var(--edge);
  }
  &[data-held] {
    border-color: var(--bone);
    outline: 1px solid var(--bone);
  }
  &[data-acts="none"] {
    color: var(--quiet);
  }
  &[data-acts="none"] > :first-child {
    opacity: 0.35;
  }
  small {
    color: var(--quiet);
    font-size: 12px;
  }
  .name {
    overflow: hidden;
    text-overflow: ellipsis;
    display: -webkit-box;
    -webkit-line-clamp: 2;
    -webkit-box-orient: vertical;
  }
`;

interface Props {
  palette: Palette;
  /** On how many of the selected heads it acts. */
  acts: number | undefined;
  of: number;
  held: boolean;
  changes: boolean;
  onPress: () => void;
}

/** A palette: its picture, its name, and where it acts. */
export function PaletteTile({ palette, acts, of, held, changes, onPress }: Props) {
  const where = actsIn(acts, of);
  const short = palette.set ? palette.name.split(",")[0]! : palette.name;
  return (
    <Tile
      data-acts={of && acts === 0 ? "none" : undefined}
      data-held={held || undefined}
      aria-label={`${changes ? "Change " : ""}${palette.name}${where ? `, acts on ${where}` : ""}`}
      onPress={onPress}
    >
      <PalettePicture picture={palette.picture} />
      <span className="name">
        {short}
        {where && <small> {where}</small>}
      </span>
    </Tile>
  );
}
