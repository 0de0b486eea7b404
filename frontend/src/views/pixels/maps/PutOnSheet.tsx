import { useState } from "react";
import { Label, Radio } from "react-aria-components";

import { usePixels, type PixelMap } from "../../../api/pixels";
import { say } from "../../../ui/Toasts";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { Ending, Sheet } from "../../../ui/Sheet";
import { Ways } from "../../effects/editor/PutOn";
import { MODES, usePlaces, type Mode } from "./usePlaces";

const OVER = [
  { id: "map", text: "as the map says" },
  { id: "over", text: "over the effects" },
  { id: "under", text: "under the effects" },
];
const OWN = 0;
/** Pads and tracks act as the map says. */
const CHOOSES_OVER: Mode[] = ["fader", "latch", "flash", "cue"];

interface Props {
  map: PixelMap;
  isOpen: boolean;
  onClose: () => void;
}

/** Put a map, with its own layers or a picture of the library, onto a fader, button or pad, into a cue or a song. */
export function PutOnSheet({ map, isOpen, onClose }: Props) {
  const { data: pixels } = usePixels();
  const [mode, setMode] = useState<Mode>("fader");
  const [picture, setPicture] = useState(OWN);
  const [over, setOver] = useState("map");
  const [chosen, setChosen] = useState<number | null>(null);
  const choosesOver = CHOOSES_OVER.includes(mode);
  const places = usePlaces(map, mode, {
    name: pixels?.pictures.find((one) => one.id === picture)?.name ?? map.name,
    picture,
    over: !choosesOver || over === "map" ? null : over === "over",
  });
  const place = places.find((one) => one.id === chosen) ?? places[0];
  async function put() {
    const done = await place?.put();
    if (!done) return;
    say(done, "done");
    onClose();
  }
  const options = [
    { id: OWN, text: "its own layers" },
    ...(pixels?.pictures ?? []).map((one) => ({ id: one.id, text: one.name })),
  ];
  return (
    <Sheet title={`Put ${map.name} on`} isOpen={isOpen} onClose={onClose}>
      <Choice label="Shows" options={options} value={picture} onChange={(id) => setPicture(Number(id))} />
      <Ways value={mode} onChange={(value) => setMode(value as Mode)}>
        <Label>On</Label>
        {MODES.map((one) => (
          <Radio key={one.id} value={one.id}>
            {one.text}
          </Radio>
        ))}
      </Ways>
      <Choice
        label={MODES.find((one) => one.id === mode)!.asks}
        placeholder={places.length ? "choose" : "there is none yet"}
        options={places}
        value={place?.id ?? null}
        onChange={(id) => setChosen(Number(id))}
      />
      <Choice
        label="Acts"
        isDisabled={!choosesOver}
        options={OVER}
        value={choosesOver ? over : "map"}
        onChange={(id) => setOver(String(id))}
      />
      {place?.isFull && <p>{place.text} is full. Choose another page.</p>}
      <Ending>
        <Button onPress={onClose}>Cancel</Button>
        <Button isDisabled={!place || place.isFull} onPress={() => void put()}>
          Put it there
        </Button>
      </Ending>
    </Sheet>
  );
}
