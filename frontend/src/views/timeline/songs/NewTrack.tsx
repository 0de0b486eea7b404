import { Plus } from "lucide-react";
import { useState } from "react";
import styled from "styled-components";

import { useDrivable, useTimelineEdits, type Timeline, type TrackKind } from "../../../api/timelines";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { Ending, Sheet } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";
import { GROUP_TITLES, GROUPS } from "../rows";

const Rows = styled.div`
  display: grid;
  gap: 14px;
  width: 460px;
  max-width: 86vw;
  p {
    color: var(--quiet);
  }
`;
const KINDS: { id: TrackKind; text: string; for: string }[] = [
  { id: "cues", text: "Cues of a list", for: "Each event goes to a cue." },
  {
    id: "presses",
    text: "Presses of a button, a pad or a flash",
    for: "Each event is a press with its length.",
  },
  { id: "levels", text: "The level of a fader", for: "Points, with straight lines between them." },
  { id: "messages", text: "Messages to a device", for: "Each event sends one." },
];

/** A new track asks what it is for, before anything else. */
export function NewTrack({ song }: { song: Timeline }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button data-variant="small" onPress={() => setOpen(true)}>
        <Plus size={15} aria-hidden="true" /> New track: what is it for?
      </Button>
      {open && <TrackSheet song={song} onClose={() => setOpen(false)} />}
    </>
  );
}

function TrackSheet({ song, onClose }: { song: Timeline; onClose: () => void }) {
  const edits = useTimelineEdits(song.id);
  const [kind, setKind] = useState<TrackKind>("cues");
  const [group, setGroup] = useState<(typeof GROUPS)[number]>("light");
  const [drives, setDrives] = useState<string | null>(null);
  const [name, setName] = useState<string | null>(null);
  const { data: able } = useDrivable(kind);
  const taken = new Set(
    song.tracks.filter((one) => one.document.kind === kind).map((one) => one.document.drives),
  );
  const free = able?.filter((one) => kind === "messages" || !taken.has(one.subject)) ?? [];
  const what = free.find((one) => one.subject === drives) ?? null;
  async function make() {
    if (!what) return;
    const document = { name: (name ?? what.what).trim() || what.what, kind, group, drives: what.subject };
    if (await edits.addTrack({ ...document, armed: kind !== "messages" })) onClose();
  }
  return (
    <Sheet title="New track: what is it for?" isOpen onClose={onClose}>
      <Rows>
        <Choice
          label="It plays"
          value={kind}
          options={KINDS}
          onChange={(key) => {
            setKind(key as TrackKind);
            setGroup(key === "messages" ? "video" : "light");
            setDrives(null);
          }}
        />
        <p>{KINDS.find((one) => one.id === kind)!.for}</p>
        <Choice
          label="It drives"
          isDisabled={!able}
          value={drives}
          placeholder={free.length ? "Choose …" : "Nothing is left that it could drive"}
          options={free.map((one) => ({ id: one.subject, text: `${one.what} · ${one.of}` }))}
          onChange={(key) => setDrives(String(key))}
        />
        <Choice
          label="It belongs to"
          value={group}
          options={GROUPS.map((one) => ({ id: one, text: GROUP_TITLES[one] }))}
          onChange={(key) => setGroup(key as typeof group)}
        />
        <TextField label="Name" value={name ?? what?.what ?? ""} onChange={setName} />
      </Rows>
      <Ending>
        <Button onPress={onClose}>Cancel</Button>
        <Button isDisabled={!what} onPress={() => void make()}>
          Make the track
        </Button>
      </Ending>
    </Sheet>
  );
}
