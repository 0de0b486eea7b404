import { useState } from "react";

import { usePaletteEdits } from "../../../api/palettes";
import { useShow } from "../../../api/queries";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { Ending, Sheet } from "../../../ui/Sheet";
import { Tick } from "../../../ui/Tick";
import styled from "styled-components";

const Groups = styled.div`
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 0 16px;
`;
const COUNTS = [12, 15, 20] as const;

/** Palettes in one go: colours evenly chosen for the eye, or positions from where the lights of a group stand. */
export function SetSheet({ onClose }: { onClose: () => void }) {
  const { data: groups = [] } = useShow((show) => show.groups);
  const edits = usePaletteEdits();
  const [kind, setKind] = useState<"colours" | "positions">("colours");
  const [count, setCount] = useState<(typeof COUNTS)[number]>(12);
  const [everyone, setEveryone] = useState(true);
  const [chosen, setChosen] = useState<number[]>([]);
  const [group, setGroup] = useState<number | null>(null);
  const make = async () => {
    const made =
      kind === "colours"
        ? await edits.colours({ count, everyone, groups: chosen })
        : await edits.positions(group!);
    if (made) onClose();
  };
  return (
    <Sheet title="Make a set of palettes" isOpen onClose={onClose}>
      <Choice
        label="What"
        row
        options={[
          { id: "colours", text: "colours, evenly chosen for the eye" },
          { id: "positions", text: "positions, from where the lights stand" },
        ]}
        value={kind}
        onChange={(id) => setKind(id as "colours" | "positions")}
      />
      {kind === "colours" ? (
        <>
          <Choice
            label="How many"
            row
            options={COUNTS.map((id) => ({ id, text: String(id) }))}
            value={count}
            onChange={(id) => setCount(id as (typeof COUNTS)[number])}
          />
          <Tick isSelected={everyone} onChange={setEveryone}>
            One set for all lights
          </Tick>
          <p>And a set of its own for each of these groups:</p>
          <Groups>
            {groups.map(({ id, name }) => (
              <Tick
                key={id}
                isSelected={chosen.includes(id)}
                onChange={(on) => setChosen(on ? [...chosen, id] : chosen.filter((one) => one !== id))}
              >
                {name}
              </Tick>
            ))}
          </Groups>
        </>
      ) : (
        <>
          <Choice
            label="For the group"
            row
            options={groups.map(({ id, name }) => ({ id, text: name }))}
            value={group}
            placeholder="choose one"
            onChange={(id) => setGroup(Number(id))}
          />
          <p>
            Stage, crowd, up, cross, fan out, fan in and centre: aimed from each light’s place. Correct them
            afterwards.
          </p>
        </>
      )}
      <Ending>
        <Button data-variant="plain" onPress={onClose}>
          Cancel
        </Button>
        <Button
          isDisabled={kind === "colours" ? !everyone && !chosen.length : group === null}
          onPress={() => void make()}
        >
          Make the set
        </Button>
      </Ending>
    </Sheet>
  );
}
