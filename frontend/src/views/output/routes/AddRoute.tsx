import { useState } from "react";
import { Form } from "react-aria-components";
import styled from "styled-components";

import { Refused } from "../../../api/client";
import { routeEdits } from "../../../api/output";
import { Button } from "../../../ui/Button";
import { TextField } from "../../../ui/TextField";

const Row = styled(Form)`
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
  align-items: start;
`;

const How = styled.p`
  color: var(--quiet);
  font-size: 14px;
  margin-top: 6px;
`;

/** A new route in one line. */
export function AddRoute() {
  const [line, setLine] = useState("");
  const [problem, setProblem] = useState("");
  async function add() {
    try {
      await routeEdits.add(line);
      setLine("");
      setProblem("");
    } catch (error) {
      setProblem(error instanceof Refused ? error.message : String(error));
    }
  }
  return (
    <>
      <Row
        onSubmit={(event) => {
          event.preventDefault();
          void add();
        }}
      >
        <TextField
          label="New route"
          hideLabel
          placeholder="1–8 to 192.0.2.20 as E1.31"
          value={line}
          problem={problem}
          onChange={(text) => {
            setLine(text);
            setProblem("");
          }}
        />
        <Button type="submit" isDisabled={!line.trim()}>
          Add the route
        </Button>
      </Row>
      <How>
        Universes, then where to: an address, simulator, multicast or broadcast. After it may stand, in any
        order: as E1.31 or as Art-Net, over an interface, from a number there, priority 110, sync 7000, 30 Hz,
        always.
      </How>
    </>
  );
}
