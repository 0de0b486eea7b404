import { Plus, Trash2 } from "lucide-react";
import styled from "styled-components";

import { kindEdits, type KindDocument } from "../../../api/kinds";
import { Button } from "../../../ui/Button";
import { GOBOS, GoboPicture } from "../../../ui/GoboPicture";
import { asHex, fromHex } from "./kindDocument";

const Slots = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2px 12px;
  li {
    display: grid;
    grid-template-columns: 34px minmax(0, 1fr) auto auto;
    align-items: center;
    gap: 6px;
    min-height: 36px;
  }
  input[type="text"] {
    width: 100%;
    min-height: 30px;
    background: transparent;
    color: var(--bone);
    border: 1px solid var(--edge);
    border-radius: 2px;
    font: inherit;
    font-size: 14px;
    padding: 0 6px;
  }
  input[type="color"] {
    width: 32px;
    height: 28px;
    padding: 0;
    border: 1px solid var(--edge);
    background: transparent;
  }
  label.file {
    cursor: pointer;
  }
  label.file input {
    position: absolute;
    opacity: 0;
    width: 1px;
  }
  label.file:focus-within {
    outline: 2px solid var(--focus);
  }
`;
/** What is in the slots of a wheel that does not say. */
const USUAL = Object.keys(GOBOS);
const lettered = (names: readonly string[]) => {
  let n = names.length + 1;
  while (names.includes(`slot ${n}`)) n += 1;
  return `slot ${n}`;
};

interface Props {
  document: KindDocument;
  readOnly: boolean;
  onChange: (document: KindDocument) => void;
}

/** The slots of its wheels: colours, and gobos with their pictures. */
export function WheelPanel({ document, readOnly, onChange }: Props) {
  const { wheel, gobos, gobo_pictures: pictures } = document;
  const picture = (n: number) => pictures[n] || gobos[n]!.toLowerCase();
  const has = (source: string) => document.channels.some((channel) => channel.source === source);
  const put = (names: string[], images: string[]) =>
    onChange({
      ...document,
      gobos: names,
      gobo_pictures: images,
      channels: document.channels.map((one) =>
        one.source === "gobo" && !one.curve?.length
          ? { ...one, low: 0, high: Math.max(names.length - 1, 1) }
          : one,
      ),
    });
  const shown = gobos.map((_, n) => pictures[n] ?? "");
  async function choose(n: number, file: File | undefined) {
    const kept = file ? await kindEdits.keepPicture(file) : "";
    if (kept)
      put(
        gobos,
        shown.map((one, k) => (k === n ? kept : one)),
      );
  }
  return (
    <>
      {has("wheel") && (
        <section aria-label="Colour wheel">
          <h3>Colour wheel</h3>
          <Slots>
            {wheel.map(([name, drive], n) => (
              <li key={`${n} ${name}`}>
                <input
                  type="color"
                  aria-label={`Colour of ${name}`}
                  defaultValue={asHex(drive)}
                  disabled={readOnly}
                  onBlur={(event) => {
                    if (event.target.value !== asHex(drive))
                      onChange({
                        ...document,
                        wheel: wheel.map((one, k) => (k === n ? [name, fromHex(event.target.value)] : one)),
                      });
                  }}
                />
                <span>{name}</span>
                <span />
                <span />
              </li>
            ))}
          </Slots>
        </section>
      )}
      {has("gobo") && (
        <section aria-label="Gobo wheel">
          <h3>Gobo wheel</h3>
          {!gobos.length && (
            <>
              <Slots aria-label="Usual slots">
                {USUAL.map((name) => (
                  <li key={name}>
                    <GoboPicture picture={name} size={30} />
                    {name}
                  </li>
                ))}
              </Slots>
              {!readOnly && (
                <Button data-variant="small" onPress={() => put([...USUAL], [...USUAL])}>
                  Change what is in them
                </Button>
              )}
            </>
          )}
          <Slots>
            {gobos.map((name, n) => (
              <li key={`${n} ${name}`}>
                <GoboPicture picture={picture(n)} size={30} />
                <input
                  type="text"
                  aria-label={`Name of slot ${n + 1}`}
                  defaultValue={name}
                  readOnly={readOnly}
                  onBlur={(event) => {
                    const typed = event.target.value.trim();
                    if (typed && typed !== name)
                      put(
                        gobos.map((one, k) => (k === n ? typed : one)),
                        shown,
                      );
                  }}
                />
                {!readOnly && (
                  <label className="file">
                    picture
                    <input
                      type="file"
                      accept="image/png,image/jpeg"
                      aria-label={`Picture of ${name}`}
                      onChange={(event) => void choose(n, event.target.files?.[0])}
                    />
                  </label>
                )}
                {!readOnly && (
                  <Button
                    data-variant="small"
                    aria-label={`Take ${name} out`}
                    onPress={() =>
                      put(
                        gobos.filter((_, k) => k !== n),
                        shown.filter((_, k) => k !== n),
                      )
                    }
                  >
                    <Trash2 size={14} aria-hidden="true" />
                  </Button>
                )}
              </li>
            ))}
          </Slots>
          {!readOnly && gobos.length > 0 && (
            <Button data-variant="small" onPress={() => put([...gobos, lettered(gobos)], [...shown, ""])}>
              <Plus size={14} aria-hidden="true" /> Another slot
            </Button>
          )}
        </section>
      )}
    </>
  );
}
