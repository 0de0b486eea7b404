import { useActionLists } from "../../../api/actionLists";
import { useBusk } from "../../../api/busk";
import type { Schemas } from "../../../api/client";
import { useLists } from "../../../api/cues";
import { useLooks } from "../../../api/looks";
import { usePixels } from "../../../api/pixels";
import { usePages, type Driven } from "../../../api/pages";
import { useLibrary, useShow } from "../../../api/queries";
import { useSpecials } from "../../../api/specials";
import { Choice, type ChoiceOption } from "../../../ui/Choice";
import { HeadsChoice } from "../../../ui/HeadsChoice";
import { NumberField } from "../../../ui/NumberField";
import { OutwardFields } from "../../cues/content/OutwardFields";
import type { Message } from "../../cues/messages";

interface Props {
  drives: Driven;
  fader: boolean;
  /** What of this kind there is. */
  options: ChoiceOption[] | undefined;
  onChange: (drives: Driven) => void;
}
const OF_LIST = [
  { id: "go", text: "next cue" },
  { id: "back", text: "cue before" },
  { id: "pause", text: "pause, and on" },
  { id: "release", text: "release it" },
];
const FAMILIES = [
  { id: "all", text: "all effects" },
  ...["intensity", "position", "colour", "beam"].map((id) => ({ id, text: `what they do in ${id}` })),
];
const ALL = 0;

/** Everything that a control could be on, by kind of it, with numbers and names. */
export function useOptions(): Partial<Record<Driven["kind"], ChoiceOption[]>> {
  const { data: lists = [] } = useLists();
  const { data: looks = [] } = useLooks();
  const { data: library } = useLibrary();
  const { data: specials } = useSpecials();
  const { data: busk } = useBusk();
  const { data: pages } = usePages();
  const { data: actions } = useActionLists();
  const { data: pixels } = usePixels();
  const { data: show } = useShow(({ groups, tempos }) => ({ groups, tempos }));
  const plain = (rows: { id: number; name: string }[]) => rows.map((one) => ({ id: one.id, text: one.name }));
  return {
    list: plain(lists),
    look: looks.map((one) => ({ id: one.id, text: `${one.name}, ${one.over ? "overlay" : "look"}` })),
    pixels: plain(pixels?.maps ?? []),
    effect: plain(library?.effects ?? []),
    group: plain(show?.groups ?? []),
    tempo: plain(show?.tempos ?? []),
    page: plain(pages?.pages ?? []),
    actions: plain(actions ?? []),
    special: [{ id: ALL, text: "All of them" }, ...plain(specials?.specials ?? [])],
    row: (busk?.pages ?? []).flatMap((page) =>
      page.rows
        .filter((row) => row.kind === "lights" || row.kind === "all")
        .map((row) => ({ id: row.id, text: `${row.name}, ${page.name}` })),
    ),
  };
}
const LABELS: Partial<Record<Driven["kind"], string>> = {
  list: "Cue list",
  look: "Look or overlay",
  pixels: "Pixel map",
  effect: "Effect",
  group: "Group",
  tempo: "Tempo",
  page: "Page",
  actions: "Action list",
  special: "Special",
  row: "Row",
};

/** What a control is on: only what its kind needs. */
export function DrivesFields({ drives, fader, options, onChange }: Props) {
  const { data: pixels } = usePixels(drives.kind === "pixels");
  const change = (part: Partial<Driven>) => onChange({ ...drives, ...part });
  const onHeads = { heads: drives.heads ?? [], group_id: drives.group_id ?? null };
  const allSpecials = drives.kind === "special";
  return (
    <>
      {options && !(allSpecials && fader) && (
        <Choice
          label={LABELS[drives.kind]!}
          placeholder={options.length ? "choose" : "there is none yet"}
          options={options}
          value={drives.number ?? (allSpecials ? ALL : null)}
          onChange={(id) => change({ number: allSpecials && id === ALL ? null : Number(id) })}
        />
      )}
      {drives.kind === "pixels" && (
        <Choice
          label="Shows"
          options={[
            { id: 0, text: "its own layers" },
            ...(pixels?.pictures ?? []).map((one) => ({ id: one.id, text: one.name })),
          ]}
          value={drives.picture ?? 0}
          onChange={(id) => change({ picture: Number(id) })}
        />
      )}
      {(drives.kind === "effect" || drives.kind === "alone") && (
        <HeadsChoice label="On" value={onHeads} onChange={change} />
      )}
      {drives.kind === "list" && !fader && (
        <Choice
          label="Does"
          options={OF_LIST}
          value={drives.do ?? "go"}
          onChange={(id) => change({ do: id as Driven["do"] })}
        />
      )}
      {drives.kind === "stop-effects" && (
        <Choice
          label="Stops"
          options={FAMILIES}
          value={drives.family ?? "all"}
          onChange={(id) => change({ family: id === "all" ? null : (id as Driven["family"]) })}
        />
      )}
      {(drives.kind === "release" || (drives.kind === "list" && drives.do === "release")) && (
        <NumberField
          label="In"
          unit="s"
          minValue={0}
          maxValue={60}
          step={0.1}
          value={drives.seconds ?? 2}
          onChange={(seconds) => Number.isFinite(seconds) && change({ seconds })}
        />
      )}
      {drives.kind === "message" && (
        <OutwardFields
          message={(drives.message as Message | null | undefined) ?? null}
          kinds={fader ? ["controller", "osc"] : undefined}
          onChange={(message) => change({ message: message as Schemas["Driven"]["message"] })}
        />
      )}
    </>
  );
}

/** Whether all is chosen that a kind needs. */
export function isWhole(drives: Driven): boolean {
  const heads = (drives.heads?.length ?? 0) > 0 || drives.group_id != null;
  switch (drives.kind) {
    case "effect":
      return drives.number != null && heads;
    case "alone":
      return heads;
    case "message":
      return !!drives.message;
    case "special":
    case "master":
    case "stop-effects":
    case "release":
      return true;
    default:
      return drives.number != null;
  }
}
