import styled from "styled-components";

import type { TakenOver } from "../../../api/rerig";
import { Scroller } from "../../../ui/Scroller";
import { grouped } from "./match";

const Frame = styled(Scroller)`
  border-left: 1px solid var(--line);
  padding: 0 0 0 12px;
  details {
    border-bottom: 1px solid var(--line);
  }
  summary {
    min-height: 32px;
    padding: 6px 0;
    cursor: pointer;
  }
  summary b {
    font-family: var(--numbers);
    font-weight: 650;
    display: inline-block;
    min-width: 2.4em;
  }
  ul {
    margin: 0;
    padding: 0 8px 8px 18px;
  }
  li {
    list-style: none;
    padding: 3px 0;
    font-size: 15px;
  }
  small {
    display: block;
    font-size: 14px;
    color: var(--quiet);
  }
  p {
    color: var(--quiet);
    padding: 8px 12px 8px 0;
  }
`;
const MOST = 200;

/** Everything that would change, in counts, each of them with its list. isOld: it is looked at anew. */
export function ChangesList({ taken, isOld }: { taken: TakenOver; isOld: boolean }) {
  return (
    <Frame>
      {isOld && <p role="status">Looking at what would change …</p>}
      {grouped(taken.changes).map(([what, changes]) => (
        <details key={what}>
          <summary>
            <b>{what.startsWith("the ") ? "" : changes.length.toLocaleString("en")}</b> {what}
          </summary>
          <ul>
            {changes.slice(0, MOST).map((one, n) => (
              <li key={n}>
                {one.name}
                <small>{one.lines.join("; ")}</small>
              </li>
            ))}
            {changes.length > MOST && <li>and {(changes.length - MOST).toLocaleString("en")} more</li>}
          </ul>
        </details>
      ))}
      <p>One undo step takes all of it back. The show as it is now is kept as a copy, in Shows.</p>
    </Frame>
  );
}
