import { showEdits, type ShowEntry } from "../../api/shows";
import { Button } from "../../ui/Button";
import { Ending, Sheet } from "../../ui/Sheet";

interface Props {
  show: ShowEntry;
  /** What would end. */
  onStage: string;
  now: string;
  onClose: () => void;
}

/** Asks before a show that is on stage ends. */
export function OpenSheet({ show, onStage, now, onClose }: Props) {
  return (
    <Sheet title={`Open ${show.name}?`} isOpen onClose={onClose}>
      <p style={{ maxWidth: "34em" }}>
        {onStage} of {now} {/^1 \S+( \S+)?$/.test(onStage) ? "is" : "are"} on stage. Everything of it goes out
        at once; {show.name} begins as it opens. Master and blackout stay as they are. {now} is kept as it is
        now.
      </p>
      <Ending>
        <Button autoFocus onPress={onClose}>
          Stay with {now}
        </Button>
        <Button
          onPress={() => {
            void showEdits.open(show.id);
            onClose();
          }}
        >
          Open {show.name}
        </Button>
      </Ending>
    </Sheet>
  );
}
