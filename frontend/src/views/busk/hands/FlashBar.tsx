import { ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";

import { useBuskTold, type BuskRow } from "../../../api/busk";
import { act } from "../../../live/socket";
import { Button, Toggle } from "../../../ui/Button";

const Bar = styled.div`
  display: flex;
  align-items: center;
  gap: 6px;
  height: 42px;
  border-top: 1px solid var(--edge);
  font-size: 14px;
  white-space: nowrap;
  > span {
    color: var(--quiet);
  }
  b {
    color: var(--bone);
  }
  button {
    min-width: 44px;
    padding: 0 9px;
  }
  @media (max-width: 1180px) {
    gap: 3px;
    font-size: 13px;
    > .aside {
      display: none;
    }
    button {
      min-width: 40px;
      padding: 0 4px;
      font-size: 14px;
    }
  }
`;
const Choices = styled(ToggleButtonGroup)`
  display: flex;
  button {
    min-width: 40px;
    padding: 0 6px;
    font-family: var(--numbers);
  }
  button + button {
    margin-left: -1px;
  }
`;
const KINDS = [
  { kind: "white", text: "White" },
  { kind: "odd", text: "Odd" },
  { kind: "even", text: "Even" },
  { kind: "strobe", text: "Strobe" },
  { kind: "dark", text: "Dark" },
] as const;
const RELEASES = [0, 0.5, 2, 5];
const RATES = [4, 8, 12, 16];
const inWords = (seconds: number) => (seconds === 0.5 ? "½" : `${seconds}`);

interface Props {
  row: BuskRow;
  top: BuskRow;
}

/** What lies over everything while it is held, on the chosen row; and how softly it goes. */
export function FlashBar({ row, top }: Props) {
  const told = useBuskTold(({ release_s, rate_hz, flashes }) => ({ release_s, rate_hz, flashes }));
  const held = (on: number, kind: string) =>
    told?.flashes.some((one) => one.row === on && one.kind === kind) || undefined;
  const flash = (on: BuskRow, kind: (typeof KINDS)[number]["kind"], text: string) => (
    <Button
      key={`${on.id} ${kind}`}
      aria-label={`${text} on ${on.name}, while held`}
      aria-pressed={!!held(on.id, kind)}
      data-selected={held(on.id, kind)}
      onPressStart={() => act({ do: "flash", row: on.id, kind, down: true })}
      onPressEnd={() => act({ do: "flash", row: on.id, kind, down: false })}
    >
      {text}
    </Button>
  );
  const flashed = row.kind === "lights" || row.kind === "all" ? row : top;
  return (
    <Bar role="group" aria-label="Flashes">
      <span className="aside">While held</span>
      {flash(top, "white", "White, all")}
      <span>
        on <b>{flashed.name}</b>
      </span>
      {KINDS.map(({ kind, text }) => flash(flashed, kind, text))}
      <span>goes in, s</span>
      <Choices
        aria-label="Flashes go in"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={told ? [told.release_s] : []}
        onSelectionChange={([key]) => act({ do: "flash-times", release_s: Number(key) })}
      >
        {RELEASES.map((one) => (
          <Toggle key={one} id={one} aria-label={`${one} s`}>
            {inWords(one)}
          </Toggle>
        ))}
      </Choices>
      <span>Hz</span>
      <Choices
        aria-label="Rate of the strobe"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={told ? [told.rate_hz] : []}
        onSelectionChange={([key]) => act({ do: "flash-times", rate_hz: Number(key) })}
      >
        {RATES.map((one) => (
          <Toggle key={one} id={one} aria-label={`${one} Hz`}>
            {one}
          </Toggle>
        ))}
      </Choices>
    </Bar>
  );
}
