import { useState } from "react";

interface Field {
  value: string;
  onChange: (value: string) => void;
  onBlur: () => void;
  onKeyDown: (event: { key: string }) => void;
}
interface Props {
  value: string;
  onCommit: (value: string) => void;
  children: (field: Field) => React.ReactNode;
}

/** A text that is kept when it is left, or with Enter; Esc brings it back. */
export function Committed({ value, onCommit, children }: Props) {
  const [typed, setTyped] = useState(value);
  const commit = () => typed !== value && onCommit(typed);
  return children({
    value: typed,
    onChange: setTyped,
    onBlur: commit,
    onKeyDown: ({ key }) => {
      if (key === "Enter") commit();
      if (key === "Escape") setTyped(value);
    },
  });
}
