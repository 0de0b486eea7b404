import { useCallback, useRef, useState } from "react";

import { PatchSheet } from "./PatchSheet";
import { SceneSheet } from "./SceneSheet";

/** A file with a rig: to be chosen, then seen before it is taken in. */
export function useRigFile() {
  const chooser = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File | null>(null);
  const close = useCallback(() => setFile(null), []);
  const isScene = file?.name.toLowerCase().endsWith(".mvr");
  const parts = (
    <>
      <input
        ref={chooser}
        type="file"
        accept=".csv,.txt,.tsv,text/csv,.mvr"
        aria-label="A CSV or MVR file"
        hidden
        onChange={(event) => {
          setFile(event.target.files?.[0] ?? null);
          event.target.value = "";
        }}
      />
      {file && isScene && <SceneSheet file={file} onClose={close} />}
      {file && !isScene && <PatchSheet file={file} onClose={close} />}
    </>
  );
  return { choose: () => chooser.current!.click(), parts };
}
