import { useRef, useState } from "react";
import styled from "styled-components";

import { useLibrary, useShow } from "../../../api/queries";
import {
  OWN_RIG,
  takeOver,
  useChanges,
  useMatches,
  useOtherRigs,
  useProposal,
  type Pair,
} from "../../../api/rerig";
import { showEdits } from "../../../api/shows";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { PageHead } from "../PageHead";
import { ChangesList } from "./ChangesList";
import { MatchPanel } from "./MatchPanel";
import { PairTable } from "./PairTable";

const Frame = styled.section`
  display: grid;
  grid-template-columns: minmax(380px, 1fr) minmax(0, 1.3fr) minmax(280px, 0.8fr);
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
  min-height: 0;
`;
const Go = styled(Button)`
  margin-left: auto;
`;
const Quiet = styled.p`
  padding: 10px 12px;
  color: var(--quiet);
`;
const FILE = "a file";
const AIMS = [
  { id: "points", text: "hit the same points" },
  { id: "angles", text: "keep their angles" },
];

/** The show goes to other lights: which takes over from which, the same effect on both, and all that would change. */
export function TakeOverPage({ onClose }: { onClose: () => void }) {
  const { data: name } = useShow((show) => show.name);
  const { data: rigs = [] } = useOtherRigs();
  const { data: library } = useLibrary();
  const [asked, setAsked] = useState("");
  const rig = asked || (rigs.find((one) => one.id !== OWN_RIG)?.id ?? "");
  const { data: proposal } = useProposal(rig);
  // pairs as they are changed from those that were proposed
  const [changed, setChanged] = useState<{ of: unknown; pairs: Pair[] } | null>(null);
  const [chosen, setChosen] = useState(0);
  const [picked, setPicked] = useState(0);
  const [aims, setAims] = useState(true);
  const [busy, setBusy] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const effect = picked || (library?.effects.find((one) => one.kept)?.id ?? 0);
  const pairs = changed && changed.of === proposal ? changed.pairs : ((proposal?.pairs ?? []) as Pair[]);
  const setPairs = (now: Pair[]) => setChanged({ of: proposal, pairs: now });
  const { data: matches } = useMatches(rig, pairs, chosen, effect);
  const body = { rig, pairs, aims, preview: true };
  const { data: changes, error, isPlaceholderData } = useChanges(body);
  const some = pairs.some((pair) => pair.target);
  const own = rig === OWN_RIG;
  const pair = pairs[chosen];

  async function go() {
    setBusy(true);
    const done = await takeOver(body);
    setBusy(false);
    if (done) onClose();
  }
  async function fromFile(chosenFile: File | undefined) {
    const made = chosenFile && (await showEdits.takeIn(chosenFile, {}));
    if (made) setAsked(`show:${made.id}`);
  }
  return (
    <Frame aria-label="Take over">
      <PageHead title={`Take ${name ?? ""} to`} onClose={onClose}>
        <Choice
          label="The other lights"
          hideLabel
          options={[
            ...rigs.map((one) => ({ id: one.id, text: `${one.name}, ${one.lights} lights` })),
            { id: FILE, text: "the rig of a saved show …" },
          ]}
          value={rig || null}
          onChange={(id) => {
            if (id === FILE) return file.current?.click();
            setAsked(String(id));
            setChosen(0);
          }}
        />
        <Choice
          label="Positions"
          row
          options={AIMS}
          value={aims ? "points" : "angles"}
          onChange={(id) => setAims(id === "points")}
        />
        <Go isDisabled={!some || busy || !!error} onPress={() => void go()}>
          {busy ? "Taking over …" : "Take over"}
        </Go>
        <input
          ref={file}
          type="file"
          hidden
          accept=".zarabanda"
          aria-label="A saved show"
          onChange={(event) => void fromFile(event.target.files?.[0])}
        />
      </PageHead>
      <PairTable
        pairs={pairs}
        matches={matches?.pairs ?? []}
        chosen={chosen}
        sources={own ? (proposal?.before ?? []) : []}
        targets={proposal?.after ?? []}
        onChosen={setChosen}
        onPairs={setPairs}
      />
      {pair ? (
        <MatchPanel
          key={pair.source.name}
          pair={pair}
          index={chosen}
          matches={matches}
          effect={effect}
          onEffect={setPicked}
          onPair={(now) => setPairs(pairs.map((one, n) => (n === chosen ? now : one)))}
        />
      ) : (
        <Quiet>
          {own
            ? "Choose a group, and the one that takes over from it: its effects, cues, pads and palettes go to those lights."
            : "Looking at the rigs …"}
        </Quiet>
      )}
      {error ? (
        <Quiet role="alert">{error.message}</Quiet>
      ) : changes && some ? (
        <ChangesList taken={changes} isOld={isPlaceholderData} />
      ) : (
        <Quiet>What would change is told here before anything does.</Quiet>
      )}
    </Frame>
  );
}
