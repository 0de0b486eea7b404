import {
  FieldError,
  Group,
  Input,
  Label,
  NumberField as AriaNumberField,
  type NumberFieldProps,
} from "react-aria-components";
import styled from "styled-components";

const Frame = styled(AriaNumberField)`
  display: grid;
  gap: 4px;
  &[data-variant="row"] {
    grid-auto-flow: column;
    align-items: center;
    gap: 8px;
  }
`;
const Box = styled(Group)`
  display: inline-flex;
  align-items: center;
  min-height: 40px;
  border: 1px solid var(--edge);
  border-radius: 2px;
  &[data-focus-within] {
    outline: 2px solid var(--focus);
    outline-offset: 1px;
  }
  &[data-invalid] {
    border-style: dashed;
    border-color: var(--bone);
  }
`;
const Field = styled(Input)`
  width: 4.8em;
  flex: 1;
  border: 0;
  background: transparent;
  color: var(--bone);
  font: 15px var(--numbers);
  padding: 0 4px 0 10px;
  text-align: right;
  outline: none;
  min-height: 36px;
`;
const Unit = styled.span`
  color: var(--quiet);
  padding-right: 10px;
`;

interface Props extends NumberFieldProps {
  label: string;
  unit?: string;
  hideLabel?: boolean;
  row?: boolean;
  focused?: boolean;
  /** The text as it is typed, before it is taken. */
  onTyped?: (text: string) => void;
}

/** A number with its unit. */
export function NumberField({
  label,
  unit,
  hideLabel = false,
  row = false,
  focused = false,
  onTyped,
  ...props
}: Props) {
  return (
    <Frame {...props} {...(hideLabel ? { "aria-label": label } : {})} data-variant={row ? "row" : "stack"}>
      {!hideLabel && <Label>{label}</Label>}
      <Box>
        <Field
          autoFocus={focused}
          onFocus={(event) => focused && event.currentTarget.select()}
          onInput={(event) => onTyped?.(event.currentTarget.value)}
        />
        {unit && <Unit aria-hidden="true">{unit}</Unit>}
      </Box>
      <FieldError />
    </Frame>
  );
}
