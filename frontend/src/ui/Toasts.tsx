import { X } from "lucide-react";
import {
  UNSTABLE_Toast as Toast,
  UNSTABLE_ToastContent as ToastContent,
  UNSTABLE_ToastQueue as ToastQueue,
  UNSTABLE_ToastRegion as ToastRegion,
  Text,
} from "react-aria-components";
import styled from "styled-components";

import { Button } from "./Button";

const queue = new ToastQueue<string>({ maxVisibleToasts: 3 });

/** Say something in passing: what was done, or what cannot be. Errors stay until they are closed. */
export function say(text: string, kind: "done" | "problem" = "problem") {
  queue.add(text, kind === "done" ? { timeout: 5000 } : { timeout: 12000 });
}

/** Take back all that is said. */
export const hush = () => queue.clear();

const Region = styled(ToastRegion)`
  position: fixed; /* over the stage, which no message speaks of */
  left: 50%;
  transform: translateX(-50%);
  top: 60px;
  display: grid;
  gap: 8px;
  z-index: 200;
  outline: none;
`;
const One = styled(Toast)`
  display: flex;
  align-items: center;
  gap: 12px;
  max-width: 460px;
  padding: 6px 6px 6px 16px;
  background: var(--bone);
  color: var(--on-bone);
  border-radius: 2px;
  outline-offset: 2px;
`;
const Close = styled(Button)`
  color: var(--on-bone);
  min-width: 40px;
  padding: 0;
  &[data-hovered] {
    background: transparent;
    outline: 1px solid var(--on-bone);
  }
`;

/** Where they appear. */
export function Toasts() {
  return (
    <Region queue={queue} aria-label="Messages">
      {({ toast }) => (
        <One toast={toast}>
          <ToastContent>
            <Text slot="title">{String(toast.content)}</Text>
          </ToastContent>
          <Close slot="close" data-variant="plain" aria-label="Close message">
            <X size={16} aria-hidden="true" />
          </Close>
        </One>
      )}
    </Region>
  );
}
