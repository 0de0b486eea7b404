import styled from "styled-components";

import { api, take } from "../../../api/client";
import { useEdit, useShow } from "../../../api/queries";
import { desk } from "../../../state";
import { Button } from "../../../ui/Button";

const Offer = styled.section`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  padding: 6px 0 8px;
  border-bottom: 1px solid var(--line);
  p {
    margin-right: 6px;
  }
`;

/** An effect that runs nowhere yet: on which lights it shall run. */
export function Lights({ id }: { id: number }) {
  const { data: groups } = useShow((show) => show.groups);
  const apply = useEdit(async (group: { name: string; heads: string[] }) => {
    const made = await take(api.POST("/api/draft/effects", { body: { effect_id: id, heads: group.heads } }));
    desk.select(group.heads);
    desk.open(id, `draft:${made.id}`);
  });
  return (
    <Offer aria-label="Lights to run it on">
      <p>It is seen on a made-up row of ten heads. Run it on</p>
      {(groups ?? []).map((group) => (
        <Button key={group.id} data-variant="small" onPress={() => apply.mutate(group)}>
          {group.name}
        </Button>
      ))}
    </Offer>
  );
}
