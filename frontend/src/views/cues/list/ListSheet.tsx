import { useState } from "react";
import styled from "styled-components";

import { useCueEdits } from "../../../api/cues";
import type { Schemas } from "../../../api/client";
import { useLivePart } from "../../../live/socket";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { Ending, Sheet } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";
import { Tick } from "../../../ui/Tick";

const Grid = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px 20px;
  max-width: 620px;
  p {
    grid-column: 1 / 3;
    color: var(--quiet);
  }
`;
type Settings = Schemas["CueListSettings"];

interface Props {
  list: Schemas["ListSummary"];
  onClose: () => void;
}

/** How a list is played. */
export function ListSheet({ list, onClose }: Props) {
  const edits = useCueEdits();
  const [name, setName] = useState(list.name);
  const [now, setNow] = useState<Settings>(list.settings);
  const tempos = useLivePart((state) => state?.tempos.map((one) => one.name) ?? []);
  const change = (part: Partial<Settings>) => setNow((before) => ({ ...before, ...part }));
  async function keep() {
    if (await edits.changeList(list.id, { name, settings: now })) onClose();
  }
  const round = !now.goes_round ? "ends" : now.round_by === "hand" ? "hand" : (now.round_by ?? "hand");
  return (
    <Sheet title="Cue list" isOpen onClose={onClose}>
      <Grid>
        <TextField label="Name" value={name} onChange={setName} />
        <Choice
          label="When everything else goes out"
          value={now.protected ? "stays" : "goes"}
          options={[
            { id: "goes", text: "goes out too" },
            { id: "stays", text: "stays: protected" },
          ]}
          onChange={(key) => change({ protected: key === "stays" })}
        />
        <Choice
          label="Its levels"
          value={now.highest_wins ? "highest" : "latest"}
          options={[
            { id: "latest", text: "latest wins" },
            { id: "highest", text: "highest wins" },
          ]}
          onChange={(key) => change({ highest_wins: key === "highest" })}
        />
        <Choice
          label="Its fader"
          value={now.fader ?? "dims"}
          options={[
            { id: "dims", text: "dims its light" },
            { id: "uncovers", text: "uncovers what is beneath" },
          ]}
          onChange={(key) => change({ fader: key as Settings["fader"] })}
        />
        <Choice
          label="At its end"
          value={round}
          options={[
            { id: "ends", text: now.ends === "releases" ? "releases itself" : "stays on the last cue" },
            { id: "hand", text: "goes round, by go" },
            { id: "time", text: "goes round by itself, in seconds" },
            { id: "tempo", text: "goes round by itself, in beats" },
          ]}
          onChange={(key) =>
            key === "ends"
              ? change({ goes_round: false })
              : change({ goes_round: true, round_by: key as Settings["round_by"] })
          }
        />
        {round === "ends" ? (
          <Tick
            isSelected={now.ends === "releases"}
            onChange={(on) => change({ ends: on ? "releases" : "stays" })}
          >
            Release itself when the last fade is over
          </Tick>
        ) : (
          <Choice
            label="Order"
            value={now.round_order ?? "forward"}
            options={[
              { id: "forward", text: "forward" },
              { id: "backward", text: "backward" },
              { id: "back-and-forth", text: "back and forth" },
              { id: "shuffled", text: "shuffled" },
            ]}
            onChange={(key) => change({ round_order: key as Settings["round_order"] })}
          />
        )}
        {(round === "time" || round === "tempo") && (
          <NumberField
            label="Every"
            unit={round === "time" ? "s" : "beats"}
            minValue={0.05}
            maxValue={3600}
            value={now.round_every ?? 1}
            onChange={(value) => change({ round_every: value })}
          />
        )}
        {round === "tempo" && <p>Counted on {tempos[0]}, so that a tap there moves it.</p>}
        <NumberField
          label="Back takes"
          unit="s"
          minValue={0}
          maxValue={60}
          step={0.1}
          value={now.back ?? 1}
          onChange={(value) => change({ back: value })}
        />
        {now.ends === "releases" && round === "ends" && (
          <NumberField
            label="Releases in"
            unit="s"
            minValue={0}
            maxValue={60}
            step={0.1}
            value={now.ends_in ?? 2}
            onChange={(value) => change({ ends_in: value })}
          />
        )}
      </Grid>
      <Ending>
        <Button onPress={onClose}>Cancel</Button>
        <Button onPress={() => void keep()}>Keep</Button>
      </Ending>
    </Sheet>
  );
}
