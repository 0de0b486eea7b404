import styled from "styled-components";

import type { BakeView } from "../../api/bakes";
import { Button } from "../../ui/Button";
import { NumberField } from "../../ui/NumberField";
import { outcome } from "./bakeWords";

const Table = styled.table`
  border-collapse: collapse;
  width: 100%;
  font-size: 15px;
  th {
    text-align: left;
    font-weight: 400;
    color: var(--quiet);
    font-size: 14px;
  }
  td,
  th {
    padding: 2px 12px 2px 0;
    border-bottom: 1px solid var(--line);
  }
  input {
    width: 4.6em;
    min-height: 30px;
  }
  [role="group"] {
    min-height: 32px;
    width: 118px;
  }
`;

interface Props {
  view: BakeView;
  errors: Readonly<Record<string, number>>;
  looked: string | null;
  onError: (name: string, error: number | null) => void;
  onLook: (name: string) => void;
}

/** What a bake has: each attribute as frames, or as the fewest steps within an error. */
export function BakeAttributes({ view, errors, looked, onError, onLook }: Props) {
  return (
    <Table aria-label="What is baked">
      <thead>
        <tr>
          <th>Attribute</th>
          <th>Heads</th>
          <th>Largest error, 0: frames</th>
          <th>Becomes</th>
          <th />
        </tr>
      </thead>
      <tbody>
        {view.attributes.map((one) => (
          <tr key={one.name}>
            <td>{one.label}</td>
            <td>{one.heads}</td>
            <td>
              <NumberField
                label={`Largest error of ${one.label.toLowerCase()}`}
                hideLabel
                unit={one.unit}
                minValue={0}
                maxValue={one.span}
                step={one.span >= 10 ? 0.1 : 0.001}
                value={errors[one.name] ?? 0}
                onChange={(error) => onError(one.name, error > 0 ? error : null)}
              />
            </td>
            <td>{outcome(one, view.frames)}</td>
            <td>
              <Button
                data-variant="small"
                aria-pressed={looked === one.name}
                aria-label={`Steps against error of ${one.label.toLowerCase()}`}
                onPress={() => onLook(one.name)}
              >
                Steps and error
              </Button>
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
