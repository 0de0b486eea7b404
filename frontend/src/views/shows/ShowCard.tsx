import styled from "styled-components";

import { fileOf, pictureOf, type ShowEntry } from "../../api/shows";
import { ActionMenu } from "../../ui/ActionMenu";
import { Button } from "../../ui/Button";
import { when } from "./when";

const Frame = styled.li`
  list-style: none;
  border: 1px solid var(--line);
  display: grid;
  &[data-open] {
    border-color: var(--bone);
  }
`;
const Picture = styled.div`
  aspect-ratio: 480 / 180;
  background: var(--stage-ground);
  display: grid;
  place-items: center;
  color: var(--stage-bone);
  font-size: 14px;
  img {
    width: 100%;
    height: 100%;
    object-fit: cover;
    display: block;
  }
`;
const Words = styled.div`
  padding: 10px 8px 10px 14px;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 0 4px;
  align-items: center;
  h3 {
    font-size: 16px;
    font-weight: 650;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  p {
    color: var(--quiet);
    font-size: 14px;
  }
`;

interface Props {
  show: ShowEntry;
  isOpen: boolean;
  onOpen: () => void;
  onDo: (what: "parts" | "copy" | "rename" | "delete") => void;
}

/** A show of the library: its stage as it was lit last, its name, when it was open, and what can be done with it. */
export function ShowCard({ show, isOpen, onOpen, onDo }: Props) {
  const picture = pictureOf(show);
  const lights = `${show.fixtures.toLocaleString("en")} fixture${show.fixtures === 1 ? "" : "s"}`;
  return (
    <Frame data-open={isOpen || undefined} aria-label={show.name}>
      <Picture>
        {picture ? <img src={picture} alt="" /> : "No picture yet: it is made while it is open"}
      </Picture>
      <Words>
        <div style={{ minWidth: 0 }}>
          <h3>{show.name}</h3>
          <p>
            {isOpen
              ? "open now"
              : show.opened
                ? `last open ${when(show.opened, new Date())}`
                : "never open yet"}{" "}
            · {lights}
          </p>
        </div>
        {!isOpen && <Button onPress={onOpen}>Open</Button>}
        <ActionMenu
          label={show.name}
          actions={[
            { id: "save", text: "Save as a file" },
            !isOpen && { id: "parts", text: "Bring parts of it in…" },
            { id: "copy", text: "Copy…" },
            { id: "rename", text: "Rename…" },
            { id: "delete", text: isOpen ? "Delete: open another show first" : "Delete", disabled: isOpen },
          ]}
          onAction={(id) => {
            if (id === "save") window.location.assign(fileOf(show));
            else onDo(id as "copy");
          }}
        />
      </Words>
    </Frame>
  );
}
