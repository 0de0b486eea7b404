import type { Schemas } from "../api/client";
import type { Rig } from "../api/rig";
import { rigEdits } from "../api/rigEdits";
import type { Carry } from "./moving";

const metres = (value: number) => Math.round(value * 1000) / 1000;

/** Give fixtures the places where a hand let go of them: one edit. */
export async function moveFixtures(rig: Rig, numbers: readonly number[], way: Carry) {
  const changes = rig.fixtures
    .filter((fixture) => numbers.includes(fixture.number))
    .map(({ number, place: [x, y, z] }) => ({
      fixture: number,
      set: { x: metres(x + way.x), y: metres(y + way.y), z: metres(z + way.z) },
    })) as Schemas["FixtureChange"][];
  const label = numbers.length === 1 ? `Move fixture ${numbers[0]}` : `Move ${numbers.length} fixtures`;
  await rigEdits.change(changes, label);
}
