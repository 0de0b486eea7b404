import { useList } from "../../../api/cues";
import { Choice, type ChoiceOption } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { ShareField } from "../../../ui/ShareField";
import { TextField } from "../../../ui/TextField";
import type { Message } from "../messages";

interface Props {
  message: Message;
  lists: ChoiceOption[];
  controls: ChoiceOption[];
  onChange: (message: Message) => void;
}
const texts = (...words: string[]) => words.map((word) => ({ id: word, text: word }));
const COMMANDS = texts("go", "stop", "resume", "load", "fire", "all off", "restore", "reset", "go off");
const FORMATS = texts("all", "lighting", "sound", "machinery", "video", "projection");
const OF_LIST = texts("go", "go to", "back", "pause", "resume", "release", "level");
const OF_CONTROL = texts("press", "let go", "level");
const FAMILIES = [
  { id: "all", text: "all effects" },
  ...["intensity", "position", "colour", "beam"].map((id) => ({ id, text: `what they do in ${id}` })),
];
const NO_CUE = ["fire", "all off", "restore", "reset"];

/** What a message of a kind says, field by field. */
export function MessageFields({ message, lists, controls, onChange }: Props) {
  const of = useList(message.kind === "list" ? message.list : null).data;
  const change = (part: object) => onChange({ ...message, ...part } as Message);
  const number = (name: string, label: string, value: number, min: number, max: number) => (
    <NumberField
      key={name}
      label={label}
      minValue={min}
      maxValue={max}
      step={1}
      value={value}
      onChange={(now) => change({ [name]: Number.isNaN(now) ? min : now })}
    />
  );
  const time = (label: string, name: string, value: number) => (
    <NumberField
      label={label}
      unit="s"
      minValue={0}
      maxValue={3600}
      step={0.1}
      value={value}
      onChange={(now) => change({ [name]: now || 0 })}
    />
  );
  const level = (value: number) => (
    <ShareField label="Level" value={value} onChange={(now) => change({ value: now || 0 })} />
  );
  switch (message.kind) {
    case "osc":
      return (
        <>
          <TextField
            label="Address"
            value={message.address}
            onChange={(address) => change({ address })}
            style={{ gridColumn: "1 / 3" }}
          />
          <TextField
            label="Arguments"
            value={message.arguments ?? ""}
            onChange={(typed) => change({ arguments: typed })}
            style={{ gridColumn: "1 / 3" }}
          />
          <p>
            Numbers, words, true and false, with spaces between:{" "}
            <code>1 0.5 on &quot;two words&quot; true</code>. A number with a point goes as a number with a
            point.
          </p>
        </>
      );
    case "note":
      return (
        <>
          {number("channel", "Channel", message.channel ?? 1, 1, 16)}
          {number("note", "Note", message.note, 0, 127)}
          {number("velocity", "Velocity", message.velocity ?? 100, 1, 127)}
          {time("Ends after (0: not)", "length", message.length ?? 0)}
        </>
      );
    case "note off":
      return (
        <>
          {number("channel", "Channel", message.channel ?? 1, 1, 16)}
          {number("note", "Note", message.note, 0, 127)}
        </>
      );
    case "controller":
      return (
        <>
          {number("channel", "Channel", message.channel ?? 1, 1, 16)}
          {number("controller", "Controller", message.controller, 0, 127)}
          {number("value", "Value", message.value, 0, 127)}
        </>
      );
    case "program":
      return (
        <>
          {number("channel", "Channel", message.channel ?? 1, 1, 16)}
          {number("program", "Program", message.program, 1, 128)}
        </>
      );
    case "show control":
      return (
        <>
          <Choice
            label="Command"
            value={message.command ?? "go"}
            options={COMMANDS}
            onChange={(command) => change({ command })}
          />
          <Choice
            label="For"
            value={message.format ?? "all"}
            options={FORMATS}
            onChange={(format) => change({ format })}
          />
          {number("to", "Device (127: all)", message.to ?? 127, 0, 127)}
          {message.command === "fire" && number("macro", "Macro", message.macro ?? 0, 0, 127)}
          {!NO_CUE.includes(message.command ?? "go") && (
            <>
              <TextField label="Cue" value={message.cue ?? ""} onChange={(cue) => change({ cue })} />
              <TextField label="List" value={message.list ?? ""} onChange={(list) => change({ list })} />
            </>
          )}
        </>
      );
    case "list":
      return (
        <>
          <Choice
            label="List"
            value={message.list}
            options={lists}
            onChange={(list) => change({ list: Number(list), cue: null })}
          />
          <Choice
            label="Does"
            value={message.do ?? "go"}
            options={OF_LIST}
            onChange={(act) => change({ do: act, cue: act === "go to" ? (of?.rows[0]?.id ?? null) : null })}
          />
          {message.do === "go to" && (
            <Choice
              label="Cue"
              value={message.cue ?? null}
              options={(of?.rows ?? []).map((row) => ({ id: row.id, text: `${row.number} ${row.name}` }))}
              onChange={(cue) => change({ cue: Number(cue) })}
            />
          )}
          {message.do === "level" && level(message.value ?? 1)}
          {message.do === "release" && time("In", "seconds", message.seconds ?? 2)}
        </>
      );
    case "control":
      return (
        <>
          <Choice
            label="Control"
            value={message.control}
            options={controls}
            onChange={(control) => change({ control: Number(control) })}
          />
          <Choice
            label="Does"
            value={message.do ?? "press"}
            options={OF_CONTROL}
            onChange={(act) => change({ do: act })}
          />
          {message.do === "level" && level(message.value ?? 1)}
        </>
      );
    case "stop effects":
      return (
        <>
          <Choice
            label="Stops"
            value={message.family ?? "all"}
            options={FAMILIES}
            onChange={(family) => change({ family: family === "all" ? null : family })}
          />
          {time("In", "seconds", message.seconds ?? 0.4)}
        </>
      );
    case "release everything":
      return time("In", "seconds", message.seconds ?? 2);
    default:
      return null;
  }
}
