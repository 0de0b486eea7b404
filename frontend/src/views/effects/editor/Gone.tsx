import styled from "styled-components";

import { api, take } from "../../../api/client";
import { useEdit } from "../../../api/queries";
import { desk, useDesk } from "../../../state";
import { Button } from "../../../ui/Button";
import { SidePanel } from "./SidePanel";
import type { Editor } from "./useEditor";

const Words = styled.section`
  padding: 24px 28px;
  display: grid;
  gap: 14px;
  align-content: start;
  p {
    max-width: 34em;
  }
`;
const Ways = styled.div`
  display: flex;
  gap: 8px;
`;

/** The effect under the hands was deleted elsewhere: nothing of it is lost. */
export function Gone({ editor }: { editor: Editor }) {
  const { effect } = editor;
  const keep = useEdit(async () => {
    const made = await take(api.POST("/api/effects", { body: { document: effect.document } }));
    desk.open(made.effect.id, null);
  });
  return (
    <>
      <Words aria-label={`Effect ${effect.name}`}>
        <h2>{effect.name} was deleted</h2>
        <p role="alert">
          It was deleted while it was open here, perhaps in another window, and does not run any more. Undo in
          that window brings it back. What you see in this one can also be kept as a new effect.
        </p>
        <Ways>
          <Button onPress={() => keep.mutate(undefined)}>Keep it as a new effect</Button>
          <Button onPress={() => useDesk.setState({ effect: null })}>Close it</Button>
        </Ways>
      </Words>
      <SidePanel editor={null} runKey={null} />
    </>
  );
}
