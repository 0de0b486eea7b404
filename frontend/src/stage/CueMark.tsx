import styled from "styled-components";

import { useList } from "../api/cues";
import { act, useLivePart } from "../live/socket";
import { Button } from "../ui/Button";
import { Mark } from "./Mark";

/** Above the lights: the picture itself is what one wants to see. */
export const Above = styled(Mark)`
  && {
    top: 0;
    right: auto;
    bottom: auto;
    padding: 0 4px 0 12px;
    font-size: 14px;
  }
  && button {
    min-height: 24px;
    padding: 0 8px;
  }
`;

/** Said on the picture of the stage while it shows a cue as it will be. */
export function CueMark() {
  const cue = useLivePart((state) => state?.looked_at ?? null);
  const lists = useLivePart((state) => state?.lists?.map((one) => one.id) ?? []);
  if (cue === null) return null;
  return (
    <Above aria-label="Seen ahead">
      {lists.map((list) => (
        <Named key={list} list={list} cue={cue} />
      ))}
      <Button data-variant="small" onPress={() => act({ do: "look-at", cue: null })}>
        Back to the stage
      </Button>
    </Above>
  );
}

/** The cue by its name, where it is in this list. */
function Named({ list, cue }: { list: number; cue: number }) {
  const { data } = useList(list);
  const row = data?.rows.find((one) => one.id === cue);
  if (!row) return null;
  return (
    <strong role="status">
      {data?.name}, cue {row.number} {row.name} blind: as it will be
    </strong>
  );
}
