import { useState } from "react";
import { Checkbox, CheckboxGroup, Label, Radio, RadioGroup } from "react-aria-components";
import styled from "styled-components";

import { api, Refused, take } from "../../../api/client";
import { freePlaces, usePages } from "../../../api/pages";
import { useEdit, useShow } from "../../../api/queries";
import { say } from "../../../ui/Toasts";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { Ending, Sheet } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";
import type { WholeEffect } from "../shelf/EffectMenu";

export const Ways = styled(RadioGroup)`
  display: grid;
  gap: 4px;
  label {
    display: flex;
    gap: 10px;
    min-height: 40px;
    align-items: center;
    cursor: pointer;
    padding: 0 8px;
    border-radius: 2px;
  }
  label::before {
    content: "";
    width: 14px;
    height: 14px;
    border: 2px solid var(--edge);
    border-radius: 50%;
  }
  label[data-hovered] {
    background: var(--raised);
  }
  label[data-selected]::before {
    background: var(--bone);
    border-color: var(--bone);
    box-shadow: inset 0 0 0 2px var(--ink);
  }
  label[data-focus-visible] {
    outline: 2px solid var(--focus);
  }
`;
const Families = styled(CheckboxGroup)`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  label {
    display: flex;
    align-items: center;
    gap: 8px;
    min-height: 40px;
    cursor: pointer;
  }
  .box {
    width: 14px;
    height: 14px;
    border: 2px solid var(--edge);
  }
  [data-selected] .box {
    background: var(--bone);
    border-color: var(--bone);
    box-shadow: inset 0 0 0 2px var(--ink);
  }
  [data-focus-visible] {
    outline: 2px solid var(--focus);
  }
`;
const MODES = [
  { id: "fader", text: "Fader: up it runs, down it is off" },
  { id: "latch", text: "Button: press for on, press again for off" },
  { id: "flash", text: "Button: on while it is held, then a soft release" },
] as const;
const JOBS = [
  { id: "depth", text: "its depth" },
  { id: "speed", text: "its speed" },
  { id: "both", text: "its depth and its speed" },
] as const;
type Job = (typeof JOBS)[number]["id"];
type Family = "intensity" | "position" | "colour" | "beam";
type Mode = (typeof MODES)[number]["id"];

interface Props {
  effect: WholeEffect;
  heads: string[];
  isOpen: boolean;
  onClose: () => void;
}

/** Put the effect, on its heads, onto a fader or button of a page. */
export function PutOn({ effect, heads, isOpen, onClose }: Props) {
  const { data: pages } = usePages();
  const { data: groups } = useShow((show) => show.groups);
  const group = groups?.find(
    (one) => one.heads.length === heads.length && one.heads.every((key) => heads.includes(key)),
  );
  const [mode, setMode] = useState<Mode>("fader");
  const exact = group?.heads.every((key, n) => key === heads[n]) ? group.id : null;
  const [follows, setFollows] = useState<number | null>(exact);
  const [pageId, setPageId] = useState<number | null>(null);
  const [place, setPlace] = useState<number | null>(null);
  const [name, setName] = useState(group ? `${group.name}: ${effect.name}` : effect.name);
  const [problem, setProblem] = useState("");
  const [job, setJob] = useState<Job>("depth");
  const [kept, setKept] = useState(effect.families as Family[]);
  const page = pages?.pages.find((one) => one.id === pageId) ?? pages?.pages[0];
  const free = page
    ? freePlaces(page.controls, mode === "fader", mode === "fader" ? pages!.faders : pages!.buttons)
    : [];
  const chosen = place !== null && free.includes(place) ? place : (free[0] ?? null);
  const put = useEdit(async () => {
    try {
      await take(
        api.POST("/api/pages/{page_id}/controls", {
          params: { path: { page_id: page!.id } },
          body: {
            place: chosen!,
            mode,
            name,
            release_s: 0.4,
            job: mode === "fader" ? job : "depth",
            drives: {
              kind: "effect",
              number: effect.id,
              heads: follows === null ? heads : [],
              group_id: follows,
              do: "go",
              seconds: 2,
              families: kept.length === effect.families.length ? null : kept,
            },
          },
        }),
      );
      say(`${name} is on ${mode === "fader" ? "fader" : "button"} ${chosen} of ${page!.name}.`, "done");
      onClose();
    } catch (error) {
      setProblem(error instanceof Refused ? error.message : String(error));
    }
  });
  const kind = mode === "fader" ? "Fader" : "Button";
  return (
    <Sheet title={`Put ${effect.name} on a page`} isOpen={isOpen} onClose={onClose}>
      <Choice
        label="On"
        options={[
          {
            id: 0,
            text: heads.length
              ? `${heads.length} head${heads.length === 1 ? "" : "s"}, as selected`
              : "no heads yet",
          },
          ...(groups ?? []).map((one) => ({
            id: one.id,
            text: `${one.name}, now and later${one.heads.length ? "" : ": empty, waits for lights"}`,
          })),
        ]}
        value={follows ?? 0}
        onChange={(key) => setFollows(Number(key) || null)}
      />
      <Ways value={mode} onChange={(value) => setMode(value as Mode)}>
        <Label>How it acts</Label>
        {MODES.map((one) => (
          <Radio key={one.id} value={one.id}>
            {one.text}
          </Radio>
        ))}
      </Ways>
      {mode === "fader" && (
        <Choice
          label="The fader sets"
          options={[...JOBS]}
          value={job}
          onChange={(key) => setJob(String(key) as Job)}
        />
      )}
      {effect.families.length > 1 && (
        <Families value={kept} onChange={(value) => setKept(value as Family[])}>
          <Label>Keep of it</Label>
          {effect.families.map((family) => (
            <Checkbox key={family} value={family}>
              <span className="box" aria-hidden="true" />
              {family}
            </Checkbox>
          ))}
        </Families>
      )}
      <div style={{ display: "flex", gap: 12 }}>
        <Choice
          label="Page"
          options={(pages?.pages ?? []).map((one) => ({ id: one.id, text: one.name }))}
          value={page?.id ?? null}
          onChange={(key) => setPageId(Number(key))}
        />
        <Choice
          label="Place"
          options={free.map((one) => ({ id: one, text: `${kind} ${one}` }))}
          value={chosen}
          onChange={(key) => setPlace(Number(key))}
          placeholder="All are taken"
        />
      </div>
      <TextField
        label="Name on the page"
        value={name}
        onChange={(value) => (setName(value), setProblem(""))}
        problem={problem}
        maxLength={80}
      />
      <Ending>
        <Button onPress={onClose}>Cancel</Button>
        <Button
          isDisabled={(!heads.length && follows === null) || chosen === null || !name.trim() || !kept.length}
          onPress={() => put.mutate(undefined)}
        >
          Put it there
        </Button>
      </Ending>
    </Sheet>
  );
}
