import { act, useLivePart } from "../live/socket";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";

const clock = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit", second: "2-digit" });

/** After everything was cut off: the light is as it was, and lists stand until a hand lets them go on. */
export function GoOnNotice() {
  const cut = useLivePart((state) => state?.cut_off ?? null);
  if (!cut) return null;
  const where = cut.cues.length ? ` in ${cut.cues.join(" and ")}` : "";
  return (
    <Notice role="alert">
      Zarabanda was cut off at {clock.format(cut.at * 1000)}
      {where}. The light is as it was then{cut.standing ? ", and stands." : "."}
      <Button data-variant="small" onPress={() => act({ do: "go-on", on: true })}>
        {cut.standing ? "Go on where it was" : "Go on"}
      </Button>
      {cut.standing > 0 && (
        <Button data-variant="small" onPress={() => act({ do: "go-on", on: false })}>
          Leave it standing
        </Button>
      )}
      <Button
        data-variant="small"
        onPress={() => {
          act({ do: "release-all", seconds: 2 });
          act({ do: "go-on", on: false });
        }}
      >
        Release everything
      </Button>
    </Notice>
  );
}
