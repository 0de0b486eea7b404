import { Dialog, Heading, Modal, ModalOverlay, Popover } from "react-aria-components";
import styled from "styled-components";

const Shade = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  background: var(--veil);
  display: grid;
  place-items: center;
  z-index: 100;
`;
const Box = styled(Modal)`
  background: var(--ink);
  border: 1px solid var(--edge);
  border-radius: 2px;
  max-width: 92vw;
  max-height: 90vh;
  overflow: auto;
`;
const Content = styled(Dialog)`
  padding: 20px 24px 24px;
  display: grid;
  gap: 16px;
  outline: none;
  min-width: 380px;
`;
const Title = styled(Heading)`
  font-size: 20px;
  font-weight: 650;
`;
/** The row of buttons that ends a dialog. */
export const Ending = styled.div`
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  margin-top: 4px;
`;

interface Props {
  title: string;
  isOpen: boolean;
  onClose: () => void;
  children: React.ReactNode;
}

/** A dialog over everything; Esc closes it. */
export function Sheet({ title, isOpen, onClose, children }: Props) {
  return (
    <Shade isOpen={isOpen} onOpenChange={(open) => !open && onClose()} isDismissable>
      <Box>
        <Content>
          <Title slot="title">{title}</Title>
          {children}
        </Content>
      </Box>
    </Shade>
  );
}

/** What opens beside a value. */
export const Bubble = styled(Popover)`
  background: var(--raised);
  border: 1px solid var(--edge);
  border-radius: 2px;
  padding: 14px 16px;
  outline: none;
  max-width: 660px;
  max-height: 460px;
  overflow: auto;
`;
