import styled from "styled-components";

import { api, take, type Schemas } from "../../../api/client";
import { useEdit, usePages } from "../../../api/queries";
import { ActionMenu } from "../../../ui/ActionMenu";
import { ButtonControl } from "./ButtonControl";
import { FaderControl } from "./FaderControl";
import { kindOf, PLACES } from "../places";

const Page = styled.section`
  padding: 12px 20px;
  display: grid;
  gap: 10px;
  height: 100%;
  grid-template-rows: auto minmax(0, 1fr) auto;
`;
const Faders = styled.div`
  display: grid;
  grid-template-columns: repeat(${PLACES}, minmax(0, 1fr));
  gap: 8px;
  min-height: 0;
`;
const Buttons = styled.div`
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  gap: 8px;
`;
type Stops = NonNullable<Schemas["NewControl"]["stops"]>;
/** What an empty button can be given here; effects are put on it in Effects. */
const STOPS: { stops: Stops; text: string }[] = [
  { stops: "all", text: "Stop all effects" },
  { stops: "intensity", text: "Stop intensity effects" },
  { stops: "position", text: "Stop movement" },
  { stops: "colour", text: "Stop colour effects" },
  { stops: "beam", text: "Stop beam effects" },
];
const Empty = styled.div`
  border: 1px dashed var(--line);
  border-radius: 2px;
  min-height: 56px;
  display: grid;
  place-items: center;
  color: var(--quiet);
  font-size: 13px;
  text-align: center;
  padding: 0 8px;
`;

/** The page of faders and buttons. Nothing moves here by itself. */
export function FaderBank() {
  const { data } = usePages();
  const put = useEdit(({ place, stops }: { place: number; stops: Stops }) =>
    take(
      api.POST("/api/pages/{page_id}/controls", {
        params: { path: { page_id: data!.pages[0]!.id } },
        body: {
          place,
          stops,
          mode: "flash",
          name: STOPS.find((one) => one.stops === stops)!.text,
          release_s: 0.4,
        },
      }),
    ),
  );
  const page = data?.pages[0];
  if (!page) return <Page />;
  const places = Array.from({ length: PLACES }, (_, n) => n + 1);
  const at = (kind: "fader" | "button", place: number) =>
    page.controls.find((control) => kindOf(control) === kind && control.place === place);
  return (
    <Page aria-label={page.name}>
      <h2>{page.name}</h2>
      <Faders>
        {places.map((place) => {
          const control = at("fader", place);
          return control ? (
            <FaderControl key={control.key} control={control} />
          ) : (
            <Empty key={place}>Fader {place}, empty</Empty>
          );
        })}
      </Faders>
      <Buttons>
        {places.map((place) => {
          const control = at("button", place);
          return control ? (
            <ButtonControl key={control.key} control={control} />
          ) : (
            <Empty key={place}>
              <ActionMenu
                label={`Button ${place}`}
                opener={`Button ${place}, empty`}
                variant="plain"
                onAction={(stops) => put.mutate({ place, stops: stops as Stops })}
                actions={STOPS.map(({ stops, text }) => ({ id: stops, text }))}
              />
            </Empty>
          );
        })}
      </Buttons>
    </Page>
  );
}
