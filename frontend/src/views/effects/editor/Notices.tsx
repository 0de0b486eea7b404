import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { Button } from "../../../ui/Button";
import type { Change, Editor } from "./useEditor";

const List = styled.ul`
  margin: 0 0 4px 28px;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 4px;
`;
const One = styled.li`
  display: flex;
  align-items: center;
  gap: 10px;
  &::before {
    content: "";
    width: 22px;
    height: 14px;
    background: var(--hatch);
    flex: none;
  }
  &[data-note]::before {
    background: none;
    border-top: 2px solid var(--edge);
    height: 0;
  }
`;

/** What will look wrong on these heads, with the way to mend it. */
export function Notices({ editor, notices }: { editor: Editor; notices: Schemas["NoticeView"][] }) {
  if (!notices.length) return null;
  return (
    <List aria-label="Warnings" aria-live="polite">
      {notices.map((notice) => (
        <One key={`${notice.kind} ${notice.path} ${notice.text}`} data-note={notice.note || undefined}>
          <span>{notice.text}</span>
          {notice.fix && (
            <Button
              data-variant="small"
              onPress={() => {
                const { operation, path, value } = notice.fix!;
                void editor.commit({ operation: operation as Change["operation"], path, value });
              }}
            >
              {notice.fix.words}
            </Button>
          )}
        </One>
      ))}
    </List>
  );
}
