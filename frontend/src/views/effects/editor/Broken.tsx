import styled from "styled-components";

import { api, take, type Schemas } from "../../../api/client";
import { useEdit } from "../../../api/queries";
import { useDesk } from "../../../state";
import { Button } from "../../../ui/Button";
import { SidePanel } from "./SidePanel";

const Words = styled.section`
  padding: 24px 28px;
  display: grid;
  gap: 14px;
  align-content: start;
  justify-items: start;
  p {
    max-width: 34em;
  }
`;

/** An effect of the library that cannot be read: the others are not touched by it. */
export function Broken({ effect }: { effect: Schemas["EffectView"] }) {
  const remove = useEdit(async () => {
    await take(api.DELETE("/api/effects/{effect_id}", { params: { path: { effect_id: effect.id } } }));
    useDesk.setState({ effect: null });
  });
  return (
    <>
      <Words aria-label={`Effect ${effect.name}`}>
        <h2>{effect.name}</h2>
        <p role="alert">{effect.broken}</p>
        <Button onPress={() => remove.mutate(undefined)}>Delete it</Button>
      </Words>
      <SidePanel editor={null} runKey={null} />
    </>
  );
}
