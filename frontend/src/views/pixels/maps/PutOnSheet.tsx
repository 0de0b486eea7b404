import { useState } from "react";
import { Label, Radio } from "react-aria-components";

import { api, take } from "../../../api/client";
import { useLists } from "../../../api/cues";
import { edited } from "../../../api/hand";
import { freePlaces, usePages } from "../../../api/pages";
import { usePixels, type PixelMap } from "../../../api/pixels";
import { say } from "../../../ui/Toasts";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { Ending, Sheet } from "../../../ui/Sheet";
import { Ways } from "../../effects/editor/PutOn";

const MODES = [
  { id: "fader", text: "Fader: its share" },
  { id: "latch", text: "Button: in by a press, out by the next" },
  { id: "flash", text: "Button: in while it is held" },
  { id: "cue", text: "A cue: the one that its list is on, else its last" },
] as const;
type Mode = (typeof MODES)[number]["id"];
const OVER = [
  { id: "map", text: "as the map says" },
  { id: "over", text: "over the effects" },
  { id: "under", text: "under the effects" },
];
const OWN = 0;
const overOf = (id: string) => (id === "map" ? null : id === "over");

/** Put a map, with its own layers or a picture of the library, onto a fader or button, or into a cue. */
export function PutOnSheet({
  map,
  isOpen,
  onClose,
}: {
  map: PixelMap;
  isOpen: boolean;
  onClose: () => void;
}) {
  const { data: pages } = usePages();
  const { data: pixels } = usePixels();
  const { data: lists = [] } = useLists();
  const [mode, setMode] = useState<Mode>("fader");
  const [picture, setPicture] = useState(OWN);
  const [over, setOver] = useState("map");
  const [pageId, setPageId] = useState<number | null>(null);
  const [listId, setListId] = useState<number | null>(null);
  const page = pages?.pages.find((one) => one.id === pageId) ?? pages?.pages[0];
  const fader = mode === "fader";
  const free = page ? freePlaces(page.controls, fader, fader ? pages!.faders : pages!.buttons) : [];
  const name = picture ? pixels?.pictures.find((one) => one.id === picture)?.name : map.name;
  const list = listId ?? lists[0]?.id ?? null;
  async function put() {
    const done =
      mode === "cue"
        ? await edited(() =>
            take(
              api.POST("/api/pixels/{map_id}/cue", {
                params: { path: { map_id: map.id } },
                body: { list: list!, picture, over: overOf(over) },
              }),
            ),
          )
        : await edited(() =>
            take(
              api.POST("/api/pages/{page_id}/controls", {
                params: { path: { page_id: page!.id } },
                body: {
                  place: free[0]!,
                  mode,
                  name: name ?? map.name,
                  drives: { kind: "pixels", number: map.id, picture, over: overOf(over) },
                },
              }),
            ),
          );
    if (!done) return;
    say(mode === "cue" ? `${(done as { done: string }).done}.` : `Put on ${page!.name}.`, "done");
    onClose();
  }
  const options = [
    { id: OWN, text: "its own layers" },
    ...(pixels?.pictures ?? []).map((one) => ({ id: one.id, text: one.name })),
  ];
  const ready = mode === "cue" ? list !== null : free.length > 0;
  return (
    <Sheet title={`Put ${map.name} on`} isOpen={isOpen} onClose={onClose}>
      <Choice label="Shows" options={options} value={picture} onChange={(id) => setPicture(Number(id))} />
      <Choice label="Acts" options={OVER} value={over} onChange={(id) => setOver(String(id))} />
      <Ways value={mode} onChange={(value) => setMode(value as Mode)}>
        <Label>On</Label>
        {MODES.map((one) => (
          <Radio key={one.id} value={one.id}>
            {one.text}
          </Radio>
        ))}
      </Ways>
      {mode === "cue" ? (
        <Choice
          label="Cue list"
          placeholder={lists.length ? "choose" : "there is none yet"}
          options={lists.map((one) => ({ id: one.id, text: one.name }))}
          value={list}
          onChange={(id) => setListId(Number(id))}
        />
      ) : (
        <Choice
          label="Page"
          options={(pages?.pages ?? []).map((one) => ({ id: one.id, text: one.name }))}
          value={page?.id ?? null}
          onChange={(id) => setPageId(Number(id))}
        />
      )}
      {mode !== "cue" && page && !free.length && <p>{page.name} is full. Choose another page.</p>}
      <Ending>
        <Button onPress={onClose}>Cancel</Button>
        <Button isDisabled={!ready} onPress={() => void put()}>
          Put it there
        </Button>
      </Ending>
    </Sheet>
  );
}
