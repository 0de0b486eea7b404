import { act } from "../live/socket";
import { desk, useDesk } from "../state";
import { Asking } from "./StageFrame";

/** A light was pointed at: the broken one, or the one that stands in for it. */
export function pointedAt(light: number) {
  const { standing } = useDesk.getState();
  if (standing === "first") return desk.standIn(light);
  if (standing !== null && standing !== light) {
    act({ do: "stand-in", light: standing, by: light });
    desk.standIn(null);
  }
}

/** Said on the stage while a broken light, or the one that stands in for it, is pointed at. */
export function StandingIn() {
  const standing = useDesk((state) => state.standing);
  if (standing === null) return null;
  return (
    <Asking role="status">
      {standing === "first"
        ? "Which light is broken? Point at it."
        : `Now point at the light that stands in for ${standing}.`}
    </Asking>
  );
}
