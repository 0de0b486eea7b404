import { useState } from "react";
import styled from "styled-components";

import { useCopies, type Copy } from "../../api/shows";
import { Button } from "../../ui/Button";
import { CopySheet } from "./CopySheet";
import { when } from "./when";

const Rows = styled.ul`
  margin: 0;
  padding: 0;
  li {
    list-style: none;
    display: flex;
    align-items: center;
    gap: 12px;
    min-height: 44px;
    border-top: 1px solid var(--line);
  }
  span {
    flex: 1;
    min-width: 0;
  }
  small {
    color: var(--quiet);
    font-size: 14px;
  }
`;
const Quiet = styled.p`
  color: var(--quiet);
  padding: 6px 0 10px;
`;

/** Copies of the open show that were made by themselves. Each is seen before it is taken back. */
export function CopiesPart({ name }: { name: string }) {
  const { data: copies } = useCopies();
  const [seen, setSeen] = useState<Copy | null>(null);
  return (
    <section aria-label={`Copies of ${name}`}>
      <h2>Copies of {name}</h2>
      <Quiet>
        Made every five minutes while it is edited, and before it is changed as a whole. All of the last hour
        are kept, one an hour of the last day, one a day of the last week.
      </Quiet>
      {copies?.length === 0 && <Quiet>There is none yet.</Quiet>}
      <Rows>
        {copies?.map((one) => (
          <li key={one.file}>
            <span>
              {when(one.at, new Date())} <small>{one.why}</small>
            </span>
            <Button
              data-variant="small"
              aria-label={`Look at the copy of ${when(one.at, new Date())}`}
              onPress={() => setSeen(one)}
            >
              Look at it
            </Button>
          </li>
        ))}
      </Rows>
      {seen && <CopySheet copy={seen} onClose={() => setSeen(null)} />}
    </section>
  );
}
