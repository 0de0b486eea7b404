import { useState } from "react";
import styled from "styled-components";

import { routeEdits, useRoutes, type Route } from "../../../api/output";
import { useLivePart } from "../../../live/socket";
import { Split } from "../Split";
import { AddRoute } from "./AddRoute";
import { AgreeSheet } from "./AgreeSheet";
import { FoundPanel } from "./FoundPanel";
import { RouteForm } from "./RouteForm";
import { RouteRow } from "./RouteRow";

const List = styled.ul`
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
`;
const Lost = styled.p`
  border: 1px dashed var(--bone);
  padding: 8px 12px;
  margin: 8px 0 0;
`;

/** Which universes go where, and what is found on the network. */
export function RoutesPanel() {
  const { data } = useRoutes();
  const states = useLivePart((state) => state?.routes ?? []);
  const [asked, setAsked] = useState<Route | null>(null);
  const [formed, setFormed] = useState<Route | null>(null);
  if (!data) return null;
  const toggle = (route: Route, on: boolean) => {
    if (on && route.ask) setAsked(route);
    else void routeEdits.switch(route.id, on, false);
  };
  return (
    <Split>
      <section aria-label="Routes">
        <AddRoute />
        {data.lost && (
          <Lost role="status">
            {/^\d+$/.test(data.lost) ? "Universe" : "Universes"} {data.lost} of the rig go nowhere: no route
            that is on carries them.
          </Lost>
        )}
        <List aria-label="Routes">
          {data.routes.map((route) => (
            <RouteRow
              key={route.id}
              route={route}
              state={states.find((one) => one.id === route.id)}
              onToggle={(on) => toggle(route, on)}
              onForm={() => setFormed(route)}
            />
          ))}
        </List>
        {!data.routes.length && <p>No route: nothing is sent. Write one above, or make one from a node.</p>}
      </section>
      <FoundPanel interfaces={data.interfaces} />
      {asked && (
        <AgreeSheet
          title={`Send to ${asked.document.to}?`}
          text={asked.ask}
          verb="Send it"
          onAgree={() => void routeEdits.switch(asked.id, true, true)}
          onClose={() => setAsked(null)}
        />
      )}
      {formed && <RouteForm route={formed} interfaces={data.interfaces} onClose={() => setFormed(null)} />}
    </Split>
  );
}
