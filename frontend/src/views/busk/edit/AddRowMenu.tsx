import { useBuskEdits, useProposal, type BuskPage } from "../../../api/busk";
import { ActionMenu } from "../../../ui/ActionMenu";

const MESSAGES = "messages";

/** A row more: of a group, or for messages. */
export function AddRowMenu({ page }: { page: BuskPage }) {
  const { data } = useProposal();
  const edits = useBuskEdits();
  const there = new Set(page.rows.map((row) => row.group_id));
  const groups = (data ?? []).filter((one) => !there.has(one.id));
  return (
    <ActionMenu
      label="Add a row"
      opener="Add a row"
      variant="full"
      onAction={(id) =>
        void edits.addRow(page.id, id === MESSAGES ? { name: "Messages" } : { group_id: Number(id) })
      }
      actions={[
        ...groups.map((one) => ({ id: String(one.id), text: `${one.name}, ${one.lights}` })),
        { id: MESSAGES, text: "Messages to outside devices" },
      ]}
    />
  );
}
