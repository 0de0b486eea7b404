import { useMemo, useState, type ReactNode } from "react";
import { ListBox, ListBoxItem, Text } from "react-aria-components";
import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { TextField } from "../../../ui/TextField";

type Kind = Schemas["KindView"];

const Frame = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: 6px;
  min-height: 0;
`;
const Search = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
`;
const List = styled(ListBox)`
  overflow: auto;
  outline-offset: -2px;
`;
const Entry = styled(ListBoxItem)`
  padding: 6px 8px;
  border-bottom: 1px solid var(--line);
  cursor: pointer;
  outline-offset: -2px;
  font-size: 14px;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 12px;
  [slot="description"] {
    grid-column: 1 / 3;
    color: var(--quiet);
    font-size: 13px;
  }
  .costs {
    color: var(--quiet);
    white-space: nowrap;
  }
  &[data-hovered] {
    background: var(--raised);
  }
  &[data-selected] {
    background: var(--bone);
    color: var(--on-bone);
  }
  &[data-selected] [slot="description"],
  &[data-selected] .costs {
    color: inherit;
  }
`;

/** Kinds that have all these words; of each model the mode with the fewest channels first. */
export function found(kinds: readonly Kind[], words: string): Kind[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const text = (kind: Kind) =>
    `${kind.maker} ${kind.name} ${kind.kind} ${kind.attributes.join(" ")} ${kind.bits}`.toLowerCase();
  return kinds.filter((kind) => wanted.every((word) => text(kind).includes(word)));
}

interface Props {
  kinds: readonly Kind[];
  chosen: string | null;
  onChoose: (kind: Kind) => void;
  /** Tools beside the search. */
  children: ReactNode;
}

/** Modes to choose from, each with what it costs, what it gives, and what effects cannot do in it. */
export function KindList({ kinds, chosen, onChoose, children }: Props) {
  const [words, setWords] = useState("");
  const shown = useMemo(() => found(kinds, words), [kinds, words]);
  return (
    <Frame>
      <Search>
        <TextField
          label="Search kinds"
          hideLabel
          placeholder="Search: wash, 16 bit, cells, colour temperature …"
          value={words}
          onChange={setWords}
        />
        {children}
      </Search>
      <List
        aria-label="Kinds"
        selectionMode="single"
        selectedKeys={chosen ? [chosen] : []}
        onSelectionChange={(keys) => {
          const kind = kinds.find((one) => keys !== "all" && keys.has(one.name));
          if (kind) onChoose(kind);
        }}
        renderEmptyState={() => "No kind has these words. Make one from its channels."}
      >
        {shown.map((kind) => (
          <Entry key={kind.name} id={kind.name} textValue={kind.name}>
            <Text slot="label">
              <b>{[kind.maker, kind.model].filter(Boolean).join(" ")}</b> {kind.label}
            </Text>
            <span className="costs">{kind.fit ? `${kind.fit} in a universe` : "more than a universe"}</span>
            <Text slot="description">
              {[
                kind.cells
                  ? `${kind.cells} cells${kind.leads ? " beside the fixture itself" : ""}`
                  : "one light",
                kind.bits,
                kind.attributes.join(", ").toLowerCase(),
              ].join(" · ")}
              {kind.limits.map((limit) => ` ${limit}`)}
            </Text>
          </Entry>
        ))}
      </List>
    </Frame>
  );
}
