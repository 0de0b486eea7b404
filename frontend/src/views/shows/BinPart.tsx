import styled from "styled-components";

import { showEdits, type ShowEntry } from "../../api/shows";
import { Button } from "../../ui/Button";
import { daysLeft } from "./when";

const Head = styled.header`
  display: flex;
  align-items: center;
  gap: 16px;
`;
const Row = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 44px;
  border-top: 1px solid var(--line);
  span {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  small {
    color: var(--quiet);
    font-size: 14px;
  }
`;

/** Deleted shows, which can be taken back for some time. */
export function BinPart({ shows, days }: { shows: ShowEntry[]; days: number }) {
  if (!shows.length) return null;
  return (
    <section aria-label="Bin">
      <Head>
        <h2 style={{ flex: 1 }}>Bin</h2>
        <Button data-variant="small" onPress={() => void showEdits.emptyBin()}>
          Delete all of it for good
        </Button>
      </Head>
      {shows.map((one) => (
        <Row key={one.id}>
          <span>
            {one.name} <small>{daysLeft(one.deleted, days, new Date())} days left</small>
          </span>
          <Button
            data-variant="small"
            aria-label={`Take ${one.name} back`}
            onPress={() => void showEdits.takeBack(one.id)}
          >
            Take back
          </Button>
        </Row>
      ))}
    </section>
  );
}
