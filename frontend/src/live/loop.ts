/** The one animation loop: everything that is drawn from live frames registers here. */
type Painter = (now: number) => void;

const painters = new Set<Painter>();
let request = 0;

function turn(now: number) {
  for (const painter of painters) painter(now);
  request = painters.size ? requestAnimationFrame(turn) : 0;
}

/** Paint every frame of the screen until the function returned is called. */
export function onEveryFrame(painter: Painter): () => void {
  painters.add(painter);
  if (!request) request = requestAnimationFrame(turn);
  return () => {
    painters.delete(painter);
  };
}
