import {
  FieldError,
  Input,
  Label,
  TextField as AriaTextField,
  type TextFieldProps,
} from "react-aria-components";
import styled from "styled-components";

const Frame = styled(AriaTextField)`
  display: grid;
  gap: 4px;
`;
const Field = styled(Input)`
  min-height: 40px;
  border: 1px solid var(--edge);
  border-radius: 2px;
  background: transparent;
  color: var(--bone);
  font: inherit;
  padding: 0 12px;
  min-width: 0;
  &::placeholder {
    color: var(--quiet);
    opacity: 1;
  }
  &[data-focused] {
    outline: 2px solid var(--focus);
    outline-offset: 1px;
  }
  &[data-invalid] {
    border-style: dashed;
    border-color: var(--bone);
  }
`;

interface Props extends TextFieldProps {
  label: string;
  hideLabel?: boolean;
  placeholder?: string;
  problem?: string;
  inputRef?: React.Ref<HTMLInputElement>;
}

/** Words typed in, with what is wrong with them said below. */
export function TextField({ label, hideLabel, placeholder, problem, inputRef, ...props }: Props) {
  return (
    <Frame {...props} isInvalid={!!problem} {...(hideLabel ? { "aria-label": label } : {})}>
      {!hideLabel && <Label>{label}</Label>}
      <Field placeholder={placeholder} ref={inputRef} />
      <FieldError>{problem}</FieldError>
    </Frame>
  );
}
