import { ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";

import { api, take } from "../../../api/client";
import { useEdit } from "../../../api/queries";
import { BpmField } from "../../../frame/BpmField";
import { act, useLivePart, useTempos } from "../../../live/socket";
import { useDesk } from "../../../state";
import { Button, Toggle } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { say } from "../../../ui/Toasts";
import { Facts, Panel } from "../scope/ScopePanel";
import { cycleText } from "./speed";
import type { Editor } from "../editor/useEditor";

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: end;
  > * {
    min-width: 0;
  }
`;
const Beats = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 126px;
  gap: 6px;
  input {
    width: 100%;
    padding-left: 4px;
  }
`;
const Pair = styled(ToggleButtonGroup)`
  display: flex;
  > * {
    flex: 1;
    padding: 0 4px;
    font-size: 14px;
  }
  > * + * {
    border-left: 0;
  }
`;
const Steps = styled(ToggleButtonGroup)`
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  gap: 4px;
  button {
    padding: 0;
    min-height: 40px;
    font: 16px var(--numbers);
  }
`;
const Length = styled.p`
  font: 15px var(--numbers);
  span {
    white-space: nowrap;
  }
  span + span::before {
    content: " = ";
    color: var(--quiet);
  }
`;
const Part = styled.div`
  display: grid;
  gap: 6px;
  border-top: 1px solid var(--line);
  padding-top: 8px;
`;

interface Speed {
  kind: "tempo" | "time";
  tempo?: string;
  cycles_per_beat?: number;
  sync?: string;
  seconds_per_cycle?: number;
}

/** How fast it runs, by a tempo or in seconds; when it ends; held still, and kept so. */
export function SpeedPanel({ editor, runKey }: { editor: Editor; runKey: string | null }) {
  const { effect, weave } = editor;
  const speed = effect.document.speed as Speed;
  const tempos = useTempos();
  const frozen = useLivePart((state) => state?.running.find((one) => one.key === runKey)?.frozen ?? null);
  const [slowest, fastest] = (effect.document.drift as [number, number] | undefined) ?? [100, 100];
  const ends = Number(effect.document.ends_after ?? 0);
  const tempo = tempos?.find((one) => one.name === speed.tempo);
  const musical = effect.sentence.shared.find((part) => part.slot === "speed.cycles_per_beat");
  const set = (path: string, value: unknown) => void editor.commit({ operation: "set", path, value });
  const keep = useEdit(async () => {
    const { done } = await take(api.POST("/api/draft/keep-frozen", { body: { key: runKey! } }));
    if (runKey?.startsWith("draft:"))
      useDesk.setState({ effect: effect.kept ? { id: effect.id, key: null } : null });
    say(`${done}. Undo brings the effect back.`, "done");
  });
  return (
    <Panel aria-label="Speed">
      <Pair
        aria-label="Speed by"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[speed.kind]}
        onSelectionChange={(keys) => set("speed.kind", [...keys][0])}
      >
        <Toggle id="tempo">By a tempo</Toggle>
        <Toggle id="time">In seconds</Toggle>
      </Pair>
      {speed.kind === "time" ? (
        <NumberField
          label="One cycle takes"
          unit="s"
          minValue={0.02}
          maxValue={3600}
          formatOptions={{ maximumFractionDigits: 2 }}
          value={speed.seconds_per_cycle ?? 2}
          onChange={(value) => Number.isFinite(value) && set("speed.seconds_per_cycle", value)}
        />
      ) : (
        <>
          <Beats>
            <Choice
              label="Tempo"
              hideLabel
              options={(tempos ?? []).map((one) => ({ id: one.name, text: one.name }))}
              value={speed.tempo ?? null}
              onChange={(key) => set("speed.tempo", key)}
            />
            <BpmField tempo={tempo} />
          </Beats>
          <Steps
            aria-label="Cycles per beat"
            selectionMode="single"
            disallowEmptySelection
            selectedKeys={[String(musical?.value)]}
            onSelectionChange={(keys) => set("speed.cycles_per_beat", Number([...keys][0]))}
          >
            {musical?.options?.map((option) => (
              <Toggle
                key={String(option.value)}
                id={String(option.value)}
                aria-label={option.text}
                data-variant="small"
              >
                {option.text.replace(/ cycles? per beat$/, "")}
              </Toggle>
            ))}
          </Steps>
          <Pair
            aria-label="Beginning"
            selectionMode="single"
            disallowEmptySelection
            selectedKeys={[speed.sync ?? "beat"]}
            onSelectionChange={(keys) => set("speed.sync", [...keys][0])}
          >
            <Toggle id="beat">On the beat</Toggle>
            <Toggle id="start">From its start</Toggle>
          </Pair>
          <Row>
            <Button
              isDisabled={!tempo}
              aria-label={`Tap ${speed.tempo}`}
              onPressStart={() => tempo && act({ do: "tap", tempo: tempo.name })}
            >
              Tap
            </Button>
            <Button isDisabled={!tempo} onPress={() => tempo && act({ do: "line-up", tempo: tempo.name })}>
              Line up {speed.tempo}
            </Button>
          </Row>
        </>
      )}
      {weave && (
        <Length aria-label="Length of a cycle">
          {cycleText(weave).map((text) => (
            <span key={text}>{text}</span>
          ))}
        </Length>
      )}
      <Part>
        <Row>
          <Toggle
            isDisabled={frozen === null}
            isSelected={frozen === true}
            onChange={(on) => runKey && act({ do: "freeze", key: runKey, on })}
          >
            {frozen ? "Frozen" : "Freeze"}
          </Toggle>
          <Button isDisabled={!frozen} onPress={() => keep.mutate(undefined)}>
            Keep as a look
          </Button>
        </Row>
        <Facts>
          {frozen === null
            ? "It does not run: apply it, then it can be held still."
            : frozen
              ? "Held where it is. Keep it as values of the draft, or let it go on."
              : "Freeze holds it where it is, to keep that as a look."}
        </Facts>
      </Part>
      <Part>
        <Row>
          <NumberField
            label="Pace from"
            unit="%"
            minValue={1}
            maxValue={1000}
            value={slowest}
            onChange={(value) => Number.isFinite(value) && set("drift", [value, Math.max(value, fastest)])}
          />
          <NumberField
            label="to"
            unit="%"
            minValue={1}
            maxValue={1000}
            value={fastest}
            onChange={(value) => Number.isFinite(value) && set("drift", [Math.min(slowest, value), value])}
          />
        </Row>
        <Facts>
          {slowest === fastest
            ? "Every cycle has the same pace."
            : "Each cycle of each lane has a pace of its own."}
        </Facts>
        <Row>
          <NumberField
            label="Ends after (0: never)"
            unit="cycles"
            minValue={0}
            maxValue={1000}
            value={ends}
            onChange={(value) => Number.isFinite(value) && set("ends_after", value)}
          />
          <Toggle isSelected={ends === 1} onChange={(once) => set("ends_after", once ? 1 : 0)}>
            A hit
          </Toggle>
        </Row>
      </Part>
    </Panel>
  );
}
