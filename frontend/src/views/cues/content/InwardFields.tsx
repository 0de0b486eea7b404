import { Choice, type ChoiceOption } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { ShareField } from "../../../ui/ShareField";
import type { Message } from "../messages";

type Kind = Message["kind"];
type Of<K extends Kind> = Extract<Message, { kind: K }>;
export type Inward = Of<
  "pad" | "row" | "tempo" | "special" | "overlay" | "pixels" | "page" | "master" | "actions"
>;

/** What can be chosen, by kind of it; pads by their row. */
export interface InwardOptions {
  rows: ChoiceOption[];
  pads: Record<number, ChoiceOption[]>;
  tempos: ChoiceOption[];
  specials: ChoiceOption[];
  overlays: ChoiceOption[];
  maps: ChoiceOption[];
  pages: ChoiceOption[];
  actions: ChoiceOption[];
}
interface Props {
  message: Inward;
  options: InwardOptions;
  onChange: (message: Message) => void;
}
const named = (words: Record<string, string>) => Object.entries(words).map(([id, text]) => ({ id, text }));
const DOES: Partial<Record<Kind, ChoiceOption[]>> = {
  pad: named({ press: "press", "let go": "let go" }),
  row: named({ level: "level", effects: "level of its effects" }),
  tempo: named({ set: "set to", tap: "tap", half: "half", double: "double" }),
  special: named({ press: "press", home: "home", level: "level of all" }),
  overlay: named({ in: "in", out: "out", level: "to a level" }),
  pixels: named({ in: "in", out: "out", level: "to a share" }),
  master: named({ level: "grand master", blackout: "blackout", light: "no blackout" }),
  actions: named({ run: "run", "call off": "call off" }),
};
/** The field that says which, what that is called, and among what it is chosen. */
const WHICH: Partial<Record<Kind, [string, string, keyof InwardOptions]>> = {
  pad: ["row", "Row", "rows"],
  row: ["row", "Row", "rows"],
  tempo: ["tempo", "Tempo", "tempos"],
  special: ["special", "Special", "specials"],
  overlay: ["overlay", "Overlay", "overlays"],
  pixels: ["map", "Pixel map", "maps"],
  page: ["page", "Page", "pages"],
  actions: ["actions", "Action list", "actions"],
};
const ALL = 0;
const LEVELS = ["level", "effects"];

/** What a step does to the show itself, field by field. */
export function InwardFields({ message, options, onChange }: Props) {
  const change = (part: object) => onChange({ ...message, ...part } as Message);
  const which = WHICH[message.kind];
  const does = DOES[message.kind];
  const plain = message as unknown as Record<string, string | number | null>;
  const offered = which ? (options[which[2]] as ChoiceOption[]) : [];
  const all = message.kind === "special";
  const hidden = all && message.do === "level";
  return (
    <>
      {which && !hidden && (
        <Choice
          label={which[1]}
          placeholder={offered.length ? "choose" : "there is none yet"}
          value={plain[which[0]] ?? (all ? ALL : null)}
          options={all ? [{ id: ALL, text: "all of them" }, ...offered] : offered}
          onChange={(id) => {
            const chosen = all && id === ALL ? null : Number(id);
            const pad = message.kind === "pad" ? { pad: options.pads[Number(id)]?.[0]?.id } : {};
            change({ [which[0]]: chosen, ...(all && chosen === null ? { do: "home" } : {}), ...pad });
          }}
        />
      )}
      {message.kind === "pad" && (
        <Choice
          label="Pad"
          value={message.pad}
          options={options.pads[message.row] ?? []}
          onChange={(pad) => change({ pad: Number(pad) })}
        />
      )}
      {does && (
        <Choice
          label="Does"
          value={plain.do ?? null}
          options={does}
          onChange={(now) => change({ do: now, ...(now === "level" && all ? { special: null } : {}) })}
        />
      )}
      {message.kind === "tempo" && message.do === "set" && (
        <NumberField
          label="To"
          unit="BPM"
          minValue={10}
          maxValue={400}
          value={message.bpm ?? 120}
          onChange={(bpm) => Number.isFinite(bpm) && change({ bpm })}
        />
      )}
      {"value" in message && LEVELS.includes(String(message.do)) && (
        <ShareField
          label="Level"
          value={message.value ?? 1}
          onChange={(value) => change({ value: value || 0 })}
        />
      )}
    </>
  );
}
