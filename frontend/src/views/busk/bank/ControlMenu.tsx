import { api, take, type Schemas } from "../../../api/client";
import { useEdit } from "../../../api/queries";
import { desk } from "../../../state";
import { say } from "../../../ui/Toasts";
import { ActionMenu } from "../../../ui/ActionMenu";

/** What can be done with a control itself. */
export function ControlMenu({ control }: { control: Schemas["ControlView"] }) {
  const remove = useEdit(async () => {
    await take(
      api.DELETE("/api/pages/controls/{control_id}", { params: { path: { control_id: control.id } } }),
    );
    say(`${control.name} was taken off the page. Undo brings it back.`, "done");
  });
  const actions: Record<string, () => void> = {
    edit: () => {
      desk.open(control.effect_id!, control.key);
      desk.select(control.heads);
      desk.show("effects");
    },
    select: () => desk.select(control.heads),
    remove: () => remove.mutate(undefined),
  };
  return (
    <ActionMenu
      label={control.name}
      onAction={(id) => actions[id]?.()}
      actions={[
        !control.stops && { id: "edit", text: `Edit ${control.effect}` },
        !control.stops && { id: "select", text: `Select its ${control.heads.length} heads` },
        { id: "remove", text: "Take off the page" },
      ]}
    />
  );
}
