import { useState } from "react";

import { api, Refused, take } from "../../../api/client";
import { useEdit } from "../../../api/queries";
import { Button } from "../../../ui/Button";
import { Ending, Sheet } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";
import type { WholeEffect } from "../shelf/EffectMenu";

interface Props {
  effect: WholeEffect;
  isOpen: boolean;
  onClose: () => void;
}

/** Put the effect into the library under a name, or give it another one. */
export function KeepSheet({ effect, isOpen, onClose }: Props) {
  const [name, setName] = useState(effect.name);
  const [problem, setProblem] = useState("");
  const keep = useEdit(async () => {
    try {
      await take(
        api.POST("/api/effects/{effect_id}/keep", {
          params: { path: { effect_id: effect.id } },
          body: { name },
        }),
      );
      onClose();
    } catch (error) {
      setProblem(error instanceof Refused ? error.message : String(error));
    }
  });
  return (
    <Sheet
      title={effect.kept ? "Rename the effect" : "Keep the effect in the library"}
      isOpen={isOpen}
      onClose={onClose}
    >
      <form
        style={{ display: "grid", gap: 16 }}
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) keep.mutate(undefined);
          else setProblem("Type a name first.");
        }}
      >
        <TextField
          label="Name"
          value={name}
          onChange={(value) => (setName(value), setProblem(""))}
          problem={problem}
          maxLength={80}
          autoFocus
        />
        <Ending>
          <Button onPress={onClose}>Cancel</Button>
          <Button type="submit">{effect.kept ? "Rename" : "Keep"}</Button>
        </Ending>
      </form>
    </Sheet>
  );
}
