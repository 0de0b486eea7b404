import styled from "styled-components";

import { Button } from "../../../ui/Button";
import { Ending, Sheet } from "../../../ui/Sheet";

const Words = styled.p`
  max-width: 34em;
`;

interface Props {
  title: string;
  text: string;
  verb: string;
  onAgree: () => void;
  onClose: () => void;
}

/** What will leave this machine, said once before it does. */
export function AgreeSheet({ title, text, verb, onAgree, onClose }: Props) {
  return (
    <Sheet title={title} isOpen onClose={onClose}>
      <Words>{text}</Words>
      <Words>Nothing was sent there from here before. You are asked once for each place.</Words>
      <Ending>
        <Button onPress={onClose}>Leave it off</Button>
        <Button
          onPress={() => {
            onAgree();
            onClose();
          }}
        >
          {verb}
        </Button>
      </Ending>
    </Sheet>
  );
}
