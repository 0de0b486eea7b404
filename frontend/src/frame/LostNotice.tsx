import { ChevronDown } from "lucide-react";
import { useState } from "react";
import styled from "styled-components";

import { useConnection, useLivePart } from "../live/socket";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";

const Lost = styled(Notice)`
  max-height: 30vh;
  overflow: auto;
  ul {
    margin: 0;
    padding-left: 1.2em;
  }
`;

/** Said when the page does not hear from Zarabanda, the engine does not run, or something is wrong with what does. What was read stays under Output. */
export function LostNotice() {
  const { connected, everConnected, engine, down } = useConnection();
  const troubles = useLivePart((state) => state?.health.troubles ?? []);
  const [all, setAll] = useState(false);
  const [read, setRead] = useState<string[]>([]);
  if (!connected)
    return everConnected ? (
      <Lost role="alert">
        Not connected to Zarabanda. The lights go on; this page connects again by itself.
      </Lost>
    ) : null;
  if (!engine)
    return <Lost role="alert">{down || "The engine is being started again; it goes on where it was."}</Lost>;
  const unread = troubles.filter(({ text }) => !read.includes(text));
  if (!unread.length) return null;
  const [first] = unread;
  return (
    <Lost role="alert" aria-label="What is wrong">
      {all ? (
        <ul>
          {unread.map(({ who, text }) => (
            <li key={who}>
              {who}: {text}
            </li>
          ))}
        </ul>
      ) : (
        <span>
          {first!.who}: {first!.text}
        </span>
      )}
      {unread.length > 1 && !all && (
        <Button data-variant="plain" onPress={() => setAll(true)}>
          {unread.length - 1} more <ChevronDown size={14} aria-hidden="true" />
        </Button>
      )}
      <Button
        data-variant="plain"
        onPress={() => {
          setRead(troubles.map(({ text }) => text));
          setAll(false);
        }}
      >
        Read
      </Button>
    </Lost>
  );
}
