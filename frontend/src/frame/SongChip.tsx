import type { SongTold } from "../api/timelines";
import { engineNow } from "../live/clock";
import { act, useLive } from "../live/socket";
import { desk } from "../state";
import { useLine } from "../views/timeline/line";
import { ActionMenu } from "../ui/ActionMenu";
import { Chip } from "./Chip";

const RELEASE_S = 2;
const ALL = "all";
const clock = (s: number) => `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, "0")}`;

/** A song on stage. */
export function SongChip({ told }: { told: SongTold }) {
  const words = () => {
    const state = useLive.getState().state;
    const now = state?.songs?.find((one) => one.timeline === told.timeline && one.leaving === told.leaving);
    const t = engineNow();
    if (!state || !now || t === null) return "song";
    const p = now.position + (t - state.t) * now.speed;
    const hands = now.hands.length ? ` · ${now.hands.length} yours` : "";
    return `${now.leaving ? "going out" : now.speed ? (now.follows ? "follows timecode" : "plays") : "stands"} · ${clock(p)}${hands}`;
  };
  return (
    <Chip
      name={told.name}
      from={words}
      isFading={told.leaving}
      tools={
        told.hands.length > 0 &&
        !told.leaving && (
          <ActionMenu
            label={`Give back to ${told.name}`}
            opener="Give back"
            variant="plain"
            onAction={(id) => act({ do: "give-back", subject: id === ALL ? null : id })}
            actions={[
              { id: ALL, text: `All back (${told.hands.length})` },
              ...told.hands.map(({ subject, name }) => ({ id: subject, text: name })),
            ]}
          />
        )
      }
      onOpen={() => {
        useLine.setState({ song: told.timeline });
        desk.show("timeline");
      }}
      stop={{
        label: `Take ${told.name} off the stage`,
        does: () => act({ do: "leave-song", seconds: RELEASE_S }),
        disabled: told.leaving,
      }}
    />
  );
}
