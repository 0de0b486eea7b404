import { useEffect, useState } from "react";
import { CheckboxGroup } from "react-aria-components";
import styled from "styled-components";

import { kindEdits, type GdtfLook } from "../../../api/kinds";
import { Button } from "../../../ui/Button";
import { Scroller } from "../../../ui/Scroller";
import { Ending, Sheet } from "../../../ui/Sheet";
import { Tick } from "../../../ui/Tick";

const Told = styled(Scroller)`
  width: min(820px, 86vw);
  max-height: 52vh;
  .mode {
    border-top: 1px solid var(--line);
    padding: 8px 0;
  }
  p,
  ul {
    margin: 0;
    color: var(--quiet);
    font-size: 14px;
  }
  ul {
    padding-left: 46px;
  }
  p.of {
    padding-left: 28px;
  }
`;

/** A fixture type from a GDTF file: its modes to choose from, and what of each is not used. */
export function GdtfSheet({
  file,
  onDone,
  onClose,
}: {
  file: File;
  onDone: (mode: string) => void;
  onClose: () => void;
}) {
  const [look, setLook] = useState<GdtfLook | null>(null);
  const [chosen, setChosen] = useState<string[]>([]);
  useEffect(() => {
    let here = true;
    void kindEdits.gdtf(file, null).then((found) => {
      if (!here) return;
      if (!found) return onClose();
      setLook(found);
      setChosen(found.modes.filter((one) => !one.there).map((one) => one.name));
    });
    return () => {
      here = false;
    };
  }, [file, onClose]);
  if (!look) return null;
  const count = `${chosen.length} mode${chosen.length === 1 ? "" : "s"}`;
  return (
    <Sheet title={[look.maker, look.model].filter(Boolean).join(" ")} isOpen onClose={onClose}>
      {look.description && <p>{look.description}</p>}
      <Told>
        <CheckboxGroup aria-label="Modes" value={chosen} onChange={setChosen}>
          {look.modes.map(({ name, kind, left_out, there }) => (
            <div className="mode" key={name}>
              <Tick value={name} isDisabled={there}>
                {name}
              </Tick>
              <p className="of">
                {there ? "The show has it already. " : ""}
                {[
                  `${kind.footprint} channel${kind.footprint === 1 ? "" : "s"}`,
                  kind.cells ? `${kind.cells} cells` : "one light",
                  kind.bits,
                  kind.attributes.join(", ").toLowerCase(),
                ].join(" · ")}
              </p>
              {left_out.length > 0 && (
                <ul aria-label={`Not used of ${name}`}>
                  {left_out.map((one) => (
                    <li key={one}>{one}</li>
                  ))}
                </ul>
              )}
            </div>
          ))}
        </CheckboxGroup>
        {[...look.faults, ...look.left_out].map((one) => (
          <p key={one}>{one}</p>
        ))}
      </Told>
      <Ending>
        <Button onPress={onClose}>Cancel</Button>
        <Button
          isDisabled={!chosen.length}
          onPress={() => void kindEdits.gdtf(file, chosen).then((done) => done && onDone(chosen[0]!))}
        >
          Take in {count}
        </Button>
      </Ending>
    </Sheet>
  );
}
