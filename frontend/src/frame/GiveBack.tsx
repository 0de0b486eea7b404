import { useHandOf } from "../api/timelines";
import { act } from "../live/socket";
import { Button } from "../ui/Button";

/** Beside a control that a hand has taken from the song on stage: gives it back. */
export function GiveBack({ subjects }: { subjects: string[] }) {
  const hand = useHandOf(subjects);
  if (!hand) return null;
  return (
    <Button
      aria-label={`Give ${hand.name} back to the song`}
      onPress={() => act({ do: "give-back", subject: hand.subject })}
    >
      Yours: give back
    </Button>
  );
}
