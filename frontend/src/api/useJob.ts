import { useCallback, useEffect, useRef, useState } from "react";

import { asJob, type Headers } from "./client";

/** Something that takes a while: how far it is (null: nothing runs), and a way to stop it. It stops when it is not seen any more. */
export function useJob() {
  const [share, setShare] = useState<number | null>(null);
  const stop = useRef<() => void>(() => undefined);
  const run = useCallback(async <T>(start: (headers: Headers) => Promise<T>): Promise<T> => {
    setShare(0);
    const job = asJob(start, setShare);
    stop.current = job.stop;
    return job.answer.finally(() => {
      if (stop.current === job.stop) setShare(null);
    });
  }, []);
  useEffect(() => () => stop.current(), []);
  return { share, run, stop: useCallback(() => stop.current(), []) };
}
