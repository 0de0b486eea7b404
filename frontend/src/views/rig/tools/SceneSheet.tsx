import { useEffect, useState } from "react";
import styled from "styled-components";

import { useKinds } from "../../../api/queries";
import { rigEdits, type SceneAsked, type SceneLook } from "../../../api/rigEdits";
import { useJob } from "../../../api/useJob";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { Progress } from "../../../ui/Progress";
import { Scroller } from "../../../ui/Scroller";
import { Ending, Sheet } from "../../../ui/Sheet";

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  width: min(880px, 86vw);
`;
const Told = styled(Scroller)`
  width: min(880px, 86vw);
  max-height: 44vh;
  font-size: 15px;
  h3 {
    font-size: 15px;
    font-weight: 650;
    padding: 8px 0 2px;
  }
  p {
    color: var(--quiet);
    margin: 0;
  }
`;
const WAYS = [
  { id: "number", text: "by number, then by place" },
  { id: "place", text: "by place, then by number" },
];
const GONE = [
  { id: "stay", text: "stay as they are" },
  { id: "go", text: "are deleted" },
];
const LEFT_OUT = "left out";
const MOST = 200;
const fixtures = (count: number) => `${count.toLocaleString("en")} fixture${count === 1 ? "" : "s"}`;

/** Lines under a heading, the first of many. */
function Lines({ title, lines }: { title: string; lines: readonly string[] }) {
  if (!lines.length) return null;
  return (
    <>
      <h3>{title}</h3>
      {lines.slice(0, MOST).map((one) => (
        <div key={one}>{one}</div>
      ))}
      {lines.length > MOST && <p>and {(lines.length - MOST).toLocaleString("en")} more</p>}
    </>
  );
}

/** A scene from an MVR file beside the rig: what is new, changed and gone, before anything is done. */
export function SceneSheet({ file, onClose }: { file: File; onClose: () => void }) {
  const { data: kinds } = useKinds();
  const [asked, setAsked] = useState<SceneAsked>({ by: "number", gone: "stay", kinds: {} });
  const [look, setLook] = useState<SceneLook | null>(null);
  const { share, run, stop } = useJob();
  useEffect(() => {
    let here = true;
    void run((headers) => rigEdits.scene(file, asked, true, headers)).then((found) => {
      if (!here) return;
      if (found) setLook(found);
      else onClose();
    });
    return () => {
      here = false;
      stop();
    };
  }, [file, asked, onClose, run, stop]);
  async function takeIn() {
    if (await run((headers) => rigEdits.scene(file, asked, false, headers))) onClose();
  }
  const change = (now: Partial<SceneAsked>) => setAsked({ ...asked, ...now });
  const busy = share !== null;
  const nothing =
    !look || (!look.new.length && !look.changed.length && !(asked.gone === "go" && look.gone.length));
  return (
    <Sheet title={`Scene from ${file.name}`} isOpen onClose={onClose}>
      {look && (
        <>
          <Row>
            <Choice
              label="Fixtures are found"
              options={WAYS}
              value={asked.by}
              onChange={(by) => change({ by: by as SceneAsked["by"] })}
            />
            <Choice
              label="Those that the file does not have"
              options={GONE}
              value={asked.gone}
              onChange={(gone) => change({ gone: gone as SceneAsked["gone"] })}
            />
            {look.unknown.map(({ type, mode, why, count, kind }) => (
              <Choice
                key={`${type}|${mode}`}
                label={`${fixtures(count)} of ${type || "no type"}${mode && `, ${mode}`}: ${why}`}
                options={[
                  { id: LEFT_OUT, text: LEFT_OUT },
                  ...(kinds?.kinds ?? []).map((one) => ({ id: one.name, text: one.name })),
                ]}
                value={kind || LEFT_OUT}
                onChange={(key) => {
                  const others = Object.entries(asked.kinds).filter(([one]) => one !== `${type}|${mode}`);
                  if (key !== LEFT_OUT) others.push([`${type}|${mode}`, String(key)]);
                  change({ kinds: Object.fromEntries(others) });
                }}
              />
            ))}
          </Row>
          <Told aria-live="polite">
            {nothing && <h3>Nothing would change</h3>}
            <Lines title={`${fixtures(look.new.length)} new`} lines={look.new} />
            <Lines title={`${fixtures(look.changed.length)} changed`} lines={look.changed} />
            <Lines
              title={`${fixtures(look.gone.length)} not in the file, ${asked.gone === "go" ? "deleted" : "kept"}`}
              lines={look.gone}
            />
            {look.lost?.map((one) => (
              <strong key={one}>{one}</strong>
            ))}
            {look.same > 0 && <p>{fixtures(look.same)} as they are already.</p>}
            <Lines title="Kinds that come with them" lines={look.kinds} />
            <Lines title="Not used of the kinds" lines={look.left_out} />
            <Lines title="To know" lines={look.notes} />
          </Told>
        </>
      )}
      {busy && <Progress label="Reading the scene" share={share} onStop={stop} />}
      <Ending>
        <Button onPress={onClose}>Cancel</Button>
        <Button isDisabled={nothing || busy} onPress={() => void takeIn()}>
          Take it in
        </Button>
      </Ending>
    </Sheet>
  );
}
