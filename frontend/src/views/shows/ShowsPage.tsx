import { FilePlus2, FolderInput } from "lucide-react";
import { useEffect, useState } from "react";
import { FileTrigger } from "react-aria-components";
import styled from "styled-components";

import { showEdits, useShows, type ShowEntry } from "../../api/shows";
import { useJob } from "../../api/useJob";
import { desk } from "../../state";
import { Button } from "../../ui/Button";
import { Progress } from "../../ui/Progress";
import { BinPart } from "./BinPart";
import { CopiesPart } from "./CopiesPart";
import { NameSheet } from "./NameSheet";
import { NewShowSheet } from "./NewShowSheet";
import { OpenSheet } from "./OpenSheet";
import { PartsSheet } from "./PartsSheet";
import { ShowCard } from "./ShowCard";

const Frame = styled.div`
  height: 100%;
  overflow: auto;
  padding: 16px 20px 24px;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(280px, 360px);
  gap: 20px 32px;
  align-content: start;
  h2 {
    font-size: 18px;
    font-weight: 650;
  }
`;
const Head = styled.header`
  grid-column: 1 / -1;
  display: flex;
  align-items: center;
  gap: 12px;
  h1 {
    font-size: 22px;
    font-weight: 650;
    flex: 1;
  }
`;
const Cards = styled.ul`
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
  gap: 16px;
  align-content: start;
`;
const Side = styled.div`
  display: grid;
  gap: 24px;
  align-content: start;
`;
type Asked = { do: "new" } | { do: "open" | "parts" | "copy" | "rename"; show: ShowEntry };

/** All shows by name with a picture of their stage; the copies of the open one; the bin. */
export function ShowsPage() {
  const { data } = useShows();
  const [asked, setAsked] = useState<Asked | null>(null);
  const job = useJob();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => event.key === "Escape" && !asked && desk.openShows(false);
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [asked]);
  if (!data) return null;
  const now = data.shows.find((one) => one.id === data.open);
  const openFirst = data.shows.toSorted((a, b) => Number(b === now) - Number(a === now));
  const close = () => setAsked(null);
  async function takeIn(files: File[]) {
    for (const file of files) await job.run((headers) => showEdits.takeIn(file, headers));
  }
  const open = (show: ShowEntry) =>
    data.on_stage ? setAsked({ do: "open", show }) : void showEdits.open(show.id);
  return (
    <Frame>
      <Head>
        <h1>Shows</h1>
        <Button onPress={() => setAsked({ do: "new" })}>
          <FilePlus2 size={18} aria-hidden="true" /> New show
        </Button>
        {job.share !== null && <Progress label="Taking it in" share={job.share} onStop={job.stop} />}
        <FileTrigger
          acceptedFileTypes={[".zarabanda"]}
          onSelect={(files) => {
            void takeIn([...(files ?? [])]);
          }}
        >
          <Button>
            <FolderInput size={18} aria-hidden="true" /> Take in a file
          </Button>
        </FileTrigger>
        <Button onPress={() => desk.openShows(false)}>Back to {now?.name ?? "the show"}</Button>
      </Head>
      <Cards aria-label="Shows">
        {openFirst.map((one) => (
          <ShowCard
            key={one.id}
            show={one}
            isOpen={one.id === data.open}
            onOpen={() => open(one)}
            onDo={(what) =>
              what === "delete" ? void showEdits.remove(one.id) : setAsked({ do: what, show: one })
            }
          />
        ))}
      </Cards>
      <Side>
        {now && <CopiesPart name={now.name} />}
        <BinPart shows={data.bin} days={data.bin_days} />
      </Side>
      {asked?.do === "new" && <NewShowSheet onClose={close} onMade={close} />}
      {asked?.do === "open" && (
        <OpenSheet show={asked.show} onStage={data.on_stage} now={now?.name ?? "the show"} onClose={close} />
      )}
      {asked?.do === "parts" && (
        <PartsSheet show={asked.show} into={now?.name ?? "the show"} onClose={close} />
      )}
      {asked?.do === "copy" && (
        <NameSheet
          title={`Copy ${asked.show.name}`}
          verb="Copy"
          name={`${asked.show.name}, copy`}
          onClose={close}
          onName={(name) => void showEdits.copy(asked.show.id, name).then(close)}
        />
      )}
      {asked?.do === "rename" && (
        <NameSheet
          title={`Rename ${asked.show.name}`}
          verb="Rename"
          name={asked.show.name}
          onClose={close}
          onName={(name) => void showEdits.rename(asked.show.id, name).then(close)}
        />
      )}
    </Frame>
  );
}
