import { useRef, useState } from "react";
import styled from "styled-components";

import { api, Refused, take } from "../api/client";
import { tell, useShow } from "../api/queries";
import { desk, useDesk } from "../state";
import { Button, Toggle } from "../ui/Button";
import { Choice } from "../ui/Choice";
import { Sideways } from "../ui/Sideways";
import { TextField } from "../ui/TextField";

const Bar = styled.section`
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 4px 12px;
  border-bottom: 1px solid var(--line);
  min-height: 48px;
  flex: none;
  position: relative;
`;
const Groups = styled.div`
  display: flex;
  flex: 1 1 0;
  min-width: 0;
  [role="group"] button {
    white-space: nowrap;
    padding: 0 9px;
    font-size: 14px;
  }
  @media (max-width: 1180px) {
    [role="group"] button {
      padding: 0 7px;
    }
  }
  button[data-chosen] {
    background: var(--bone);
    color: var(--on-bone);
  }
`;
const Count = styled.span`
  white-space: nowrap;
  min-width: 64px;
  text-align: right;
`;
const Quick = styled.div`
  width: 196px;
  flex: none;
  @media (max-width: 1180px) {
    width: 150px;
  }
  position: relative;
  [slot="errorMessage"] {
    position: absolute;
    top: 44px;
    left: 0;
    width: 420px;
    padding: 8px 12px;
    background: var(--bone);
    color: var(--on-bone);
    z-index: 20;
    border-radius: 2px;
  }
`;

const same = (a: string[], b: string[]) => a.length === b.length && a.every((key, n) => key === b[n]);

/** What is selected, in which order: by words, by group, by order. */
export function SelectionBar() {
  const { data: groups } = useShow((show) => show.groups);
  const { data: orders } = useShow((show) => show.orders);
  const selection = useDesk((state) => state.selection);
  const order = useDesk((state) => state.order);
  const cells = useDesk((state) => state.cells);
  const [text, setText] = useState("");
  const [problem, setProblem] = useState("");
  const picked = useRef<string[]>([]);

  async function choose() {
    if (!text.trim()) return;
    try {
      const { heads } = await take(
        api.POST("/api/selection", { body: { text, current: selection, cells: useDesk.getState().cells } }),
      );
      picked.current = heads;
      desk.select(heads);
      setText("");
      setProblem("");
      document.getElementById("quick-selection")?.blur();
    } catch (error) {
      setProblem(error instanceof Refused ? error.message : String(error));
    }
  }
  async function putInOrder(step: string, label: string) {
    const from =
      order === "as picked"
        ? selection
        : picked.current.length === selection.length
          ? picked.current
          : selection;
    if (order === "as picked") picked.current = selection;
    if (step === "as-picked") return desk.select(from, "as picked");
    try {
      const { heads } = await take(
        api.POST("/api/selection/order", { body: { heads: from, order: [step] } }),
      );
      desk.select(heads, label);
    } catch (error) {
      tell(error);
    }
  }
  /** From now on, and for what is selected: fixtures as one light each, or as their cells. */
  async function takeAs(on: boolean) {
    useDesk.setState({ cells: on });
    if (!selection.length) return;
    const text = on ? "cells" : "whole";
    try {
      desk.select((await take(api.POST("/api/selection", { body: { text, current: selection } }))).heads);
    } catch (error) {
      tell(error);
    }
  }
  return (
    <Bar aria-label="Selection">
      <Quick>
        <TextField
          label="Quick selection"
          hideLabel
          placeholder="Select: 101-110, odd  /"
          value={text}
          onChange={(value) => {
            setText(value);
            setProblem("");
          }}
          problem={problem}
          id="quick-selection"
          onKeyDown={(event) => {
            if (event.key === "Enter") void choose();
            if (event.key === "Escape") {
              setText("");
              setProblem("");
              (event.target as HTMLElement).blur();
            }
          }}
        />
      </Quick>
      <Groups>
        <Sideways label="Groups">
          {groups?.map((group) => (
            <Button
              key={group.id}
              data-variant="plain"
              data-chosen={same(group.heads, selection) || undefined}
              onPress={() => desk.select(group.heads)}
            >
              {group.name}
            </Button>
          ))}
        </Sideways>
      </Groups>
      <Toggle
        data-variant="small"
        isSelected={cells}
        onChange={(on) => void takeAs(on)}
        aria-label="Take fixtures as their cells"
      >
        Cells
      </Toggle>
      <Count aria-live="polite">
        {selection.length
          ? `${selection.length.toLocaleString("en")} head${selection.length === 1 ? "" : "s"}`
          : "None selected"}
      </Count>
      <Choice
        label="Order"
        hideLabel
        options={orders ?? []}
        value={orders?.find((one) => one.text === order)?.id ?? "as-picked"}
        isDisabled={!selection.length}
        onChange={(key) => void putInOrder(String(key), orders?.find((one) => one.id === key)?.text ?? "")}
      />
      <Button data-variant="plain" isDisabled={!selection.length} onPress={() => desk.select([])}>
        Clear
      </Button>
    </Bar>
  );
}
