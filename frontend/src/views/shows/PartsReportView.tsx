import styled from "styled-components";

import type { PartsReport } from "../../api/shows";
import { Scroller } from "../../ui/Scroller";
import { byKind } from "./byKind";

const Frame = styled(Scroller)`
  width: min(680px, 80vw);
  max-height: min(460px, 52vh);
  h3 {
    font-size: 15px;
    font-weight: 650;
    padding: 12px 0 4px;
  }
  ul {
    margin: 0;
    padding: 0;
  }
  li {
    list-style: none;
    padding: 5px 0;
    border-top: 1px solid var(--line);
    display: grid;
    grid-template-columns: 130px minmax(0, 1fr);
    gap: 12px;
  }
  small {
    color: var(--quiet);
    font-size: 14px;
  }
`;
const MOST_TOLD = 12;

/** What bringing in would do: what comes, what is matched by its name, which lights are missing. */
export function PartsReportView({ report, into }: { report: PartsReport; into: string }) {
  const { coming, matched, fixtures, groups } = report;
  const missing = fixtures.slice(0, MOST_TOLD).join(", ");
  return (
    <Frame>
      <h3>
        {coming.length} part{coming.length === 1 ? "" : "s"} will come in
      </h3>
      <ul>
        {coming.map((one, n) => (
          <li key={n}>
            <span>{one.what}</span>
            <span>
              {one.name}{" "}
              <small>
                {[
                  one.name !== one.was && `called ${one.was} there`,
                  one.needed_by && `needed by ${one.needed_by}`,
                ]
                  .filter(Boolean)
                  .join(", ")}
              </small>
            </span>
          </li>
        ))}
      </ul>
      {groups.length > 0 && (
        <>
          <h3>Lights of {into} take over</h3>
          <p>{groups.join(", ")}</p>
        </>
      )}
      {matched.length > 0 && (
        <>
          <h3>What is there already by that name is used</h3>
          <ul>
            {byKind(matched, "").map(([what, of]) => (
              <li key={what}>
                <span>{what}</span>
                <span>{of.map((one) => one.name).join(", ")}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      {fixtures.length > 0 && (
        <>
          <h3>
            {fixtures.length} fixture{fixtures.length === 1 ? "" : "s"} they use{" "}
            {fixtures.length === 1 ? "is" : "are"} not in {into}
          </h3>
          <p>
            {missing}
            {fixtures.length > MOST_TOLD && ` and ${fixtures.length - MOST_TOLD} more`}. What they do is kept,
            and acts once there are fixtures of these numbers.
          </p>
        </>
      )}
    </Frame>
  );
}
