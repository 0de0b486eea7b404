import { useActionLists } from "../../../api/actionLists";
import { useBusk } from "../../../api/busk";
import { useLists } from "../../../api/cues";
import { useDevices } from "../../../api/devices";
import { useLooks } from "../../../api/looks";
import { usePages } from "../../../api/pages";
import { usePixels } from "../../../api/pixels";
import { useShow } from "../../../api/queries";
import { useSpecials } from "../../../api/specials";
import type { InwardOptions } from "./InwardFields";

const plain = (rows: { id: number; name: string }[]) => rows.map((one) => ({ id: one.id, text: one.name }));

/** Everything that messages of cues and steps of action lists can go to; null until it is known. */
export function useMessageTargets(ownList?: number) {
  const { data: devices } = useDevices();
  const { data: lists } = useLists();
  const { data: pages } = usePages();
  const { data: busk } = useBusk();
  const { data: tempos } = useShow((show) => show.tempos);
  const { data: specials } = useSpecials();
  const { data: looks } = useLooks();
  const { data: actions } = useActionLists();
  const { data: pixels } = usePixels();
  if (!pixels || !devices || !lists || !pages || !busk || !tempos || !specials || !looks || !actions)
    return null;
  const rows = busk.pages.flatMap((page) => page.rows.map((row) => ({ ...row, page: page.name })));
  const options: InwardOptions = {
    rows: rows.map((row) => ({ id: row.id, text: `${row.name}, ${row.page}` })),
    pads: Object.fromEntries(
      rows.map((row) => [
        row.id,
        plain([...row.colour, ...row.position, ...row.beam, ...row.effects, ...row.messages]),
      ]),
    ),
    tempos: plain(tempos),
    specials: plain(specials.specials),
    overlays: plain(looks.filter((one) => one.over)),
    maps: plain(pixels.maps),
    pages: plain(pages.pages),
    actions: plain(actions),
  };
  return {
    devices: devices.devices.map((one) => ({
      id: one.id,
      speaks: one.document.speaks,
      text: one.name,
    })),
    lists: plain(lists.filter((one) => one.id !== ownList)),
    controls: pages.pages.flatMap((page) =>
      page.controls.map((one) => ({ id: one.id, text: `${one.name}, ${page.name}` })),
    ),
    options,
  };
}
