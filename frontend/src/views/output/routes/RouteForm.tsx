import { useState } from "react";
import styled from "styled-components";

import { Refused, type Schemas } from "../../../api/client";
import { routeEdits, type Route } from "../../../api/output";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { Ending, Sheet } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";
import { Tick } from "../../../ui/Tick";

const Fields = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px 20px;
  width: 560px;
`;
const Problem = styled.p`
  border-left: 3px solid var(--bone);
  padding-left: 8px;
  max-width: 560px;
`;
const PLACES = [
  { id: "simulator", text: "The simulated node" },
  { id: "multicast", text: "Multicast (E1.31)" },
  { id: "broadcast", text: "Broadcast (Art-Net)" },
  { id: "address", text: "An address" },
];
const WORDS = ["simulator", "multicast", "broadcast"];
const ANY = "any";

interface Props {
  route: Route;
  interfaces: Schemas["InterfaceView"][];
  onClose: () => void;
}

/** Everything a route has, field by field. */
export function RouteForm({ route, interfaces, onClose }: Props) {
  const [given, setGiven] = useState(route.document);
  const [problem, setProblem] = useState("");
  const set = (change: Partial<Schemas["RouteDocument"]>) => setGiven((now) => ({ ...now, ...change }));
  const place = WORDS.includes(given.to) ? given.to : "address";
  const isE131 = given.protocol !== "Art-Net";
  async function keep() {
    try {
      await routeEdits.change(route.id, given);
      onClose();
    } catch (error) {
      setProblem(error instanceof Refused ? error.message : String(error));
    }
  }
  return (
    <Sheet title="A route" isOpen onClose={onClose}>
      <Fields>
        <TextField
          label="Universes (1–8, 12, or all)"
          value={given.universes ?? "all"}
          onChange={(universes) => set({ universes })}
        />
        <Choice
          label="As"
          options={[
            { id: "E1.31", text: "E1.31 (streaming ACN)" },
            { id: "Art-Net", text: "Art-Net" },
          ]}
          value={given.protocol ?? "E1.31"}
          onChange={(protocol) => set({ protocol: protocol as "E1.31" | "Art-Net", sync: 0 })}
        />
        <Choice
          label="To"
          options={PLACES}
          value={place}
          onChange={(to) => set(to === "address" ? { to: "" } : { to: String(to), port: 0 })}
        />
        <TextField
          label="Address"
          isDisabled={place !== "address"}
          value={place === "address" ? given.to : ""}
          placeholder={place === "address" ? "192.0.2.20" : "not needed"}
          onChange={(to) => set({ to })}
        />
        <Choice
          label="Over"
          options={[
            { id: ANY, text: "Whichever leads there" },
            ...interfaces.map((one) => ({ id: one.name, text: one.words })),
          ]}
          value={given.over || ANY}
          isDisabled={place === "simulator"}
          onChange={(over) => set({ over: over === ANY ? "" : String(over) })}
        />
        <NumberField
          label="Port (0: the standard's)"
          minValue={0}
          maxValue={65535}
          formatOptions={{ useGrouping: false }}
          value={given.port ?? 0}
          isDisabled={place === "simulator"}
          onChange={(port) => set({ port: port || 0 })}
        />
        <TextField
          label="The first is numbered there"
          placeholder="as here"
          value={given.first == null ? "" : String(given.first)}
          onChange={(text) => set({ first: /^\d+$/.test(text) ? Number(text) : null })}
        />
        <NumberField
          label="At most"
          unit="Hz"
          minValue={1}
          maxValue={44}
          value={given.rate ?? 44}
          onChange={(rate) => set({ rate: rate || 44 })}
        />
        {isE131 ? (
          <>
            <NumberField
              label="Priority (0 to 200)"
              minValue={0}
              maxValue={200}
              value={given.priority ?? 100}
              onChange={(priority) => set({ priority: Number.isNaN(priority) ? 100 : priority })}
            />
            <NumberField
              label="Shown together by universe (0: not)"
              minValue={0}
              maxValue={63999}
              formatOptions={{ useGrouping: false }}
              value={given.sync ?? 0}
              onChange={(sync) => set({ sync: sync || 0 })}
            />
          </>
        ) : (
          <Tick isSelected={!!given.sync} onChange={(on) => set({ sync: on ? 1 : 0 })}>
            Shown together (ArtSync)
          </Tick>
        )}
        <Tick isSelected={given.always ?? false} onChange={(always) => set({ always })}>
          Every frame, also when nothing changes
        </Tick>
      </Fields>
      {problem && <Problem role="alert">{problem}</Problem>}
      <Ending>
        <Button onPress={onClose}>Leave it</Button>
        <Button onPress={() => void keep()}>Keep</Button>
      </Ending>
    </Sheet>
  );
}
