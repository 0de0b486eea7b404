import { useMemo } from "react";

import { api, take, type Schemas } from "./client";
import { useDesk } from "../state";
import { say } from "../ui/Toasts";
import { Newest } from "./newest";
import { refresh, tell } from "./queries";

type Change = Omit<Schemas["ChangeValues"], "preview">;
export type Family = NonNullable<Schemas["TakeFromStage"]["families"]>[number];
type Colour = Omit<Schemas["SetColour"], "preview">;
type FanChange = Omit<Schemas["ChangeFan"], "preview">;
type Aim = Omit<Schemas["AimLights"], "preview">;

const MOVES = ["pan", "tilt"];
const change = (body: Schemas["ChangeValues"]) => take(api.POST("/api/draft/change", { body }));
const aim = (body: Schemas["AimLights"]) => take(api.POST("/api/draft/aim", { body }));

/** An edit of the draft: what was refused is told. What it answered, or null. */
export async function edited<T>(asked: () => Promise<T>): Promise<T | null> {
  try {
    return await asked();
  } catch (error) {
    tell(error);
    return null;
  } finally {
    refresh();
  }
}

/** Ways to set values by hand: seen on stage while a control moves, one edit when it is let go. */
export function useHand() {
  const { position, others } = useDesk((state) => state.fades);
  return useMemo(() => {
    const fade = (attribute: string) => (MOVES.includes(attribute) ? position : others);
    const changes = new Newest((body: Change) => change({ ...body, preview: true }), tell);
    return {
      /** What takes its time is not seen before: it would be there already. */
      preview: (body: Change) => void (fade(body.attribute) || changes.show(body)),
      commit: (body: Change) => {
        changes.drop();
        return edited(() => change({ ...body, preview: false, fade_s: fade(body.attribute) })).then(
          (done) => {
            if (done?.limited) say(done.limited);
            return done;
          },
        );
      },
      takeBack: (attributes: string[], heads: string[] | null) =>
        void edited(() => take(api.POST("/api/draft/take-back", { body: { attributes, heads } }))),
      take: (heads: string[], families: Family[]) =>
        void edited(() => take(api.POST("/api/draft/take", { body: { heads, families } }))),
      clear: () => void edited(() => take(api.DELETE("/api/draft"))),
    };
  }, [position, others]);
}

const asked = ({ heads, hex, picker, numbers }: Colour): Schemas["ReadColour"] => ({
  heads,
  hex,
  picker,
  numbers,
});

/** Ways to set a colour: seen on stage while it is picked; `read`: what it is in every picker, and what lights do for it. */
export function useColourHand(read: (answer: Schemas["ColourView"]) => void) {
  const { others } = useDesk((state) => state.fades);
  return useMemo(() => {
    const set = (body: Schemas["SetColour"]) => take(api.POST("/api/colour/set", { body }));
    const ask = (body: Schemas["ReadColour"]) => take(api.POST("/api/colour/read", { body }));
    const picks = new Newest(async (body: Colour) => {
      // what takes its time is not seen before: it would be there already
      read(others ? await ask(asked(body)) : await set({ ...body, preview: true }));
    }, tell);
    return {
      preview: (body: Colour) => void picks.show(body),
      commit: async (body: Colour) => {
        picks.drop();
        const answer = await edited(() => set({ ...body, preview: false, fade_s: others }));
        if (answer) read(answer);
        return answer !== null;
      },
    };
  }, [read, others]);
}

/** Ways to fan: seen on stage while a head is dragged. */
export function useFanHand(seen: (fan: Schemas["FanView"]) => void) {
  return useMemo(() => {
    const change = (id: number, body: Schemas["ChangeFan"]) =>
      take(api.PUT("/api/draft/fans/{fan_id}", { params: { path: { fan_id: id } }, body }));
    const drags = new Newest(
      async ({ id, ...body }: FanChange & { id: number }) =>
        seen(await change(id, { ...body, preview: true })),
      tell,
    );
    return {
      preview: (id: number, body: FanChange) => void drags.show({ id, ...body }),
      commit: async (id: number, body: FanChange) => {
        drags.drop();
        const answer = await edited(() => change(id, { ...body, preview: false }));
        if (answer) seen(answer);
      },
      make: (body: Schemas["MakeFan"]) => edited(() => take(api.POST("/api/draft/fans", { body }))),
    };
  }, [seen]);
}

/** Ways to aim: seen on stage while the point is dragged, with who cannot reach it. */
export function useAim(told: (answer: Schemas["AimDone"]) => void) {
  const { position } = useDesk((state) => state.fades);
  return useMemo(() => {
    const aims = new Newest(async (body: Aim) => told(await aim({ ...body, preview: true })), tell);
    return {
      preview: (body: Aim) => void (position || aims.show(body)),
      commit: async (body: Aim) => {
        aims.drop();
        const answer = await edited(() => aim({ ...body, preview: false, fade_s: position }));
        if (answer) told(answer);
      },
    };
  }, [told, position]);
}
