import { useState } from "react";
import styled from "styled-components";

import { useBusk, useBuskEdits } from "../../api/busk";
import { useDesk } from "../../state";
import { ChevronDown } from "lucide-react";
import { ActionMenu } from "../../ui/ActionMenu";
import { Button } from "../../ui/Button";
import { FaderBank } from "./bank/FaderBank";
import { BuskPage } from "./BuskPage";
import { EditMode } from "./edit/EditMode";
import { MakePageSheet } from "./edit/MakePageSheet";
import { NameSheet } from "./edit/NameSheet";
import { BANK, useHomeKey } from "./useHomeKey";

const Empty = styled.section`
  padding: 40px;
  display: grid;
  gap: 14px;
  justify-items: start;
  align-content: start;
  max-width: 620px;
  p {
    color: var(--quiet);
  }
`;
const Start = styled.div`
  display: flex;
  align-items: center;
  min-width: 0;
  white-space: nowrap;
  > button:first-child {
    padding: 0 4px 0 6px;
    min-width: 0;
    overflow: hidden;
    font-weight: 650;
  }
`;

/** The live pages: rows by group, and the page of faders and buttons. */
export function BuskView() {
  const { data } = useBusk();
  const chosen = useDesk((state) => state.busk);
  const edits = useBuskEdits();
  const [sheet, setSheet] = useState<"make" | "rename" | null>(null);
  const [editing, setEditing] = useState<number | null>(null);
  useHomeKey();
  if (!data) return null;
  const page = chosen === BANK ? undefined : (data.pages.find((one) => one.id === chosen) ?? data.pages[0]);
  const show = (id: number) => useDesk.setState({ busk: id });
  const edited = data.pages.find((one) => one.id === editing);
  if (edited) return <EditMode page={edited} onDone={() => setEditing(null)} />;
  function choose(id: string) {
    if (id.startsWith("page:")) return show(Number(id.slice(5)));
    if (id === "edit") return setEditing(page!.id);
    if (id === "delete") return void edits.removePage(page!.id);
    setSheet(id as "make" | "rename");
  }
  const start = (more: React.ReactNode) => (
    <Start>
      <ActionMenu
        label="Pages"
        opener={
          <>
            <span>{page?.name ?? "Faders and buttons"}</span>
            <ChevronDown size={14} aria-hidden="true" />
          </>
        }
        onAction={choose}
        actions={[
          ...data.pages.map((one) => ({ id: `page:${one.id}`, text: one.name })),
          { id: `page:${BANK}`, text: "Faders and buttons (Home)" },
          page && { id: "edit", text: "Edit rows and pads" },
          { id: "make", text: "Make a busking page" },
          page && { id: "rename", text: `Rename ${page.name}` },
          page && { id: "delete", text: `Delete ${page.name}` },
        ]}
      />
      {more}
    </Start>
  );
  return (
    <>
      {page ? (
        <BuskPage key={page.id} page={page} clashes={data.clashes} start={start} />
      ) : chosen === BANK ? (
        <FaderBank start={start(null)} />
      ) : (
        <Empty>
          <h2>No busking page yet</h2>
          <p>
            A busking page has a row for each group: its level, colours, positions, beams and effects, always
            in the same order. It is made in one step from the groups of the rig, with pads that their lights
            can do.
          </p>
          <Button onPress={() => setSheet("make")}>Make a busking page</Button>
          <Button data-variant="plain" onPress={() => show(BANK)}>
            Show the faders and buttons
          </Button>
        </Empty>
      )}
      {sheet === "make" && <MakePageSheet onClose={() => setSheet(null)} />}
      {sheet === "rename" && page && (
        <NameSheet
          title="Rename the page"
          name={page.name}
          onClose={() => setSheet(null)}
          onKeep={(name) => edits.renamePage(page.id, name)}
        />
      )}
    </>
  );
}
