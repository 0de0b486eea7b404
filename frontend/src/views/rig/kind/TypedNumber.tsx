import styled from "styled-components";

const Field = styled.input`
  width: 5em;
  text-align: right;
  font: 14px var(--numbers);
`;

interface Props {
  label: string;
  value: number;
  readOnly: boolean;
  onChange: (value: number) => void;
}

/** A number in a row of a table: taken with Enter or when it is left. */
export function TypedNumber({ label, value, readOnly, onChange }: Props) {
  const put = (text: string) => {
    const typed = Number(text);
    if (text.trim() && Number.isFinite(typed) && typed !== value) onChange(typed);
  };
  return (
    <Field
      key={value}
      aria-label={label}
      inputMode="decimal"
      defaultValue={Math.round(value * 1e4) / 1e4}
      readOnly={readOnly}
      onBlur={(event) => put(event.target.value)}
      onKeyDown={(event) => event.key === "Enter" && put(event.currentTarget.value)}
    />
  );
}
