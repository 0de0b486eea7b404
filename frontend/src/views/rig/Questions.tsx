import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Ending, Sheet } from "../../ui/Sheet";

const Lines = styled.ul`
  margin: 0;
  padding-left: 20px;
  max-height: 320px;
  max-width: 640px;
  overflow: auto;
`;

interface CostProps {
  title: string;
  /** What it costs, in words; empty: nothing. */
  lines: readonly string[];
  nothing: string;
  verb: string;
  onDo: () => void;
  onClose: () => void;
}

/** What something would cost, told before it is done. */
export function CostSheet({ title, lines, nothing, verb, onDo, onClose }: CostProps) {
  return (
    <Sheet title={title} isOpen onClose={onClose}>
      {lines.length ? (
        <Lines>
          {lines.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </Lines>
      ) : (
        <p>{nothing}</p>
      )}
      <Ending>
        <Button onPress={onClose}>Leave it</Button>
        <Button
          onPress={() => {
            onDo();
            onClose();
          }}
        >
          {verb}
        </Button>
      </Ending>
    </Sheet>
  );
}

/** What a paste would change, or what is wrong with it. */
export function PasteSheet({
  told,
  onDo,
  onClose,
}: {
  told: Schemas["PasteView"];
  onDo: () => void;
  onClose: () => void;
}) {
  const wrong = told.faults.length > 0;
  const lines = wrong ? told.faults : [...told.changes, ...(told.lost ?? [])];
  return (
    <Sheet
      title={wrong ? "These rows cannot be pasted" : `Paste ${told.changes.length} rows`}
      isOpen
      onClose={onClose}
    >
      <Lines>
        {lines.slice(0, 200).map((line) => (
          <li key={line}>{line}</li>
        ))}
      </Lines>
      <Ending>
        <Button onPress={onClose}>{wrong ? "Close" : "Leave it"}</Button>
        {!wrong && (
          <Button
            onPress={() => {
              onDo();
              onClose();
            }}
          >
            Paste them
          </Button>
        )}
      </Ending>
    </Sheet>
  );
}
