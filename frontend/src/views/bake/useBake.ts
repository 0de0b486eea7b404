import { useEffect, useState } from "react";

import { bakes, type BakeAsk, type BakeView, type CurvePoint } from "../../api/bakes";
import { useJob } from "../../api/useJob";

/** A bake as it would be, looked at anew whenever something of it is another; and the curve of one attribute. */
export function useBake(ask: BakeAsk | null) {
  const [found, setFound] = useState<{ view: BakeView | null; wrong: string }>({ view: null, wrong: "" });
  const [curve, setCurve] = useState<{ name: string; points: CurvePoint[] } | null>(null);
  const { share, run, stop } = useJob();
  const key = JSON.stringify(ask);
  useEffect(() => {
    const body = JSON.parse(key) as BakeAsk | null;
    if (!body) return;
    let here = true;
    run((headers) => bakes.look(body, headers)).then(
      (view) => here && setFound({ view, wrong: "" }),
      (error: Error) => here && setFound((before) => ({ ...before, wrong: error.message })),
    );
    return () => {
      here = false;
      stop();
    };
  }, [key, run, stop]);
  async function lookAt(attribute: string) {
    if (!ask) return;
    const answer = await run((headers) => bakes.curve({ ...ask, errors: {}, attribute }, headers));
    if (answer) setCurve({ name: attribute, points: answer.points });
  }
  return { ...found, curve, lookAt, share, run, stop };
}
