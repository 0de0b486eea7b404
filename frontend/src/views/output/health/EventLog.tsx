import styled from "styled-components";

import { useEvents } from "../../../api/output";

const Head = styled.div`
  margin-top: 12px;
  display: flex;
  justify-content: space-between;
  align-items: center;
  a {
    color: var(--bone);
    padding: 10px 0;
  }
`;
const Lines = styled.ol`
  list-style: none;
  margin: 8px 0;
  padding: 0;
  font-size: 14px;
  li {
    display: grid;
    grid-template-columns: 9ch 10ch minmax(0, 1fr);
    gap: 8px;
    padding: 4px 0;
    border-bottom: 1px solid var(--line);
    overflow-wrap: anywhere;
  }
  time {
    font-family: var(--numbers);
    color: var(--quiet);
  }
`;
const Who = styled.span`
  color: var(--quiet);
`;
const clock = new Intl.DateTimeFormat("en", {
  hour: "2-digit",
  minute: "2-digit",
  second: "2-digit",
  hour12: false,
});

/** What has happened, newest first; it can be saved. */
export function EventLog() {
  const { data: events = [] } = useEvents();
  return (
    <section aria-label="Events">
      <Head>
        <h2>What has happened</h2>
        <a href="/api/output/events.txt" download>
          Save all of it
        </a>
      </Head>
      <Lines>
        {events.slice(0, 200).map((event, index) => (
          <li key={`${event.at} ${index}`}>
            <time title={new Date(event.at * 1000).toLocaleString("en")}>
              {clock.format(event.at * 1000)}
            </time>
            <Who>{event.who}</Who>
            <span>{event.text}</span>
          </li>
        ))}
      </Lines>
      {!events.length && <p>Nothing yet.</p>}
    </section>
  );
}
