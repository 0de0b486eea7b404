import styled from "styled-components";

import { useDesk } from "../../../state";
import { Button } from "../../../ui/Button";

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
  padding-left: 30px;
  color: var(--quiet);
`;
const SHOWN = 6;

interface Props {
  heads: string[];
  onChange: (heads: string[]) => void;
}

/** Lights that are not prepared in the dark for a cue: the audience is to see them move. */
export function SeenMoves({ heads, onChange }: Props) {
  const selection = useDesk((state) => state.selection);
  const more = selection.filter((head) => !heads.includes(head));
  const named = heads.slice(0, SHOWN).join(", ") + (heads.length > SHOWN ? " …" : "");
  return (
    <Row>
      {heads.length > 0 && (
        <>
          <span>but for {named}, which move in view</span>
          <Button data-variant="small" onPress={() => onChange([])}>
            All of them after all
          </Button>
        </>
      )}
      {more.length > 0 ? (
        <Button data-variant="small" onPress={() => onChange([...heads, ...more])}>
          Not the {more.length} selected
        </Button>
      ) : (
        !heads.length && <span>Select lights on the stage to leave them out.</span>
      )}
    </Row>
  );
}
