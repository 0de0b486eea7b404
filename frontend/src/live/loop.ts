/** The one animation loop: everything that is drawn from live frames registers here. */
type Painter = (now: number) => void;

const painters = new Set<Painter>();
let request = 0;

function turn(now: number) {
  request = 0;
  for (const painter of painters) painter(now);
}

/** There is something new to see: paint with the next frame of the screen. */
export function wake() {
  if (!request && painters.size) request = requestAnimationFrame(turn);
}

/** Paint whenever there is something new to see, a frame of the screen each time, until the function returned is called. */
export function onEveryFrame(painter: Painter): () => void {
  painters.add(painter);
  wake();
  return () => {
    painters.delete(painter);
  };
}

window.addEventListener("resize", wake);
