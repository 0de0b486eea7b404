import { useState } from "react";
import { CheckboxGroup, Dialog, DialogTrigger } from "react-aria-components";
import styled from "styled-components";

import { api, take, type Schemas } from "../../../api/client";
import { useEdit, useShow } from "../../../api/queries";
import { Button } from "../../../ui/Button";
import { Bubble } from "../../../ui/Sheet";
import { Tick } from "../../../ui/Tick";

const Rules = styled(CheckboxGroup)`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 16px;
  margin-bottom: 10px;
`;

/** Make other groups from one, by several rules in one go. */
export function RuleChoice({ group }: { group: Schemas["GroupView"] }) {
  const { data: rules = [] } = useShow((show) => show.rules);
  const [chosen, setChosen] = useState<string[]>([]);
  const derive = useEdit(() =>
    take(
      api.POST("/api/groups/{group_id}/derive", {
        params: { path: { group_id: group.id } },
        body: { rules: chosen },
      }),
    ),
  );
  return (
    <DialogTrigger>
      <Button>From this group …</Button>
      <Bubble placement="top">
        <Dialog aria-label={`Make groups from ${group.name}`}>
          {({ close }) => (
            <>
              <Rules aria-label="Rules" value={chosen} onChange={setChosen}>
                {rules.map((rule) => (
                  <Tick key={rule.id} value={rule.id}>
                    {rule.text}
                  </Tick>
                ))}
              </Rules>
              <Button
                isDisabled={!chosen.length}
                onPress={() =>
                  derive.mutate(undefined, {
                    onSuccess: () => {
                      setChosen([]);
                      close();
                    },
                  })
                }
              >
                Make them
              </Button>
            </>
          )}
        </Dialog>
      </Bubble>
    </DialogTrigger>
  );
}
