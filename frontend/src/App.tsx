import { lazy, Suspense, useEffect, useRef } from "react";
import styled from "styled-components";

import { useRig } from "./api/queries";
import { GoOnNotice } from "./frame/GoOnNotice";
import { HeldNotice } from "./frame/HeldNotice";
import { LostNotice } from "./frame/LostNotice";
import { NowRibbon } from "./frame/NowRibbon";
import { RecordingNotice } from "./frame/RecordingNotice";
import { SelectionBar } from "./frame/SelectionBar";
import { Shortcuts } from "./frame/Shortcuts";
import { TopBar } from "./frame/TopBar";
import { WhyPanel } from "./frame/WhyPanel";
import { Stage } from "./stage/Stage";
import { desk, useDesk, VIEW_TITLES } from "./state";
import { Toasts } from "./ui/Toasts";
import { BuskView } from "./views/busk/BuskView";
import { useActionKeys } from "./views/busk/actions/useActionKeys";
import { usePageAsked } from "./views/busk/usePageAsked";
import { EffectsView } from "./views/effects/EffectsView";

const Page = styled.div`
  display: flex;
  flex-direction: column;
  height: 100%;
  main {
    flex: 1;
    min-height: 0;
    overflow: hidden;
  }
  main > [role="tabpanel"] {
    height: 100%;
    outline-offset: -2px;
  }
`;
const loadRig = () => import("./views/rig/RigView");
const loadLook = () => import("./views/look/LookView");
const loadPixels = () => import("./views/pixels/PixelsView");
const loadCues = () => import("./views/cues/CuesView");
const loadTimeline = () => import("./views/timeline/TimelineView");
const loadShows = () => import("./views/shows/ShowsPage");
const loadOutput = () => import("./views/output/OutputView");
/** The code of views that are not opened first comes after the first picture. */
const RigView = lazy(async () => ({ default: (await loadRig()).RigView }));
const LookView = lazy(async () => ({ default: (await loadLook()).LookView }));
const PixelsView = lazy(async () => ({ default: (await loadPixels()).PixelsView }));
const CuesView = lazy(async () => ({ default: (await loadCues()).CuesView }));
const TimelineView = lazy(async () => ({ default: (await loadTimeline()).TimelineView }));
const ShowsPage = lazy(async () => ({ default: (await loadShows()).ShowsPage }));
const OutputView = lazy(async () => ({ default: (await loadOutput()).OutputView }));
const BakeSheet = lazy(async () => ({ default: (await import("./views/bake/BakeSheet")).BakeSheet }));
const SOON_MS = 1500;
const SHOWN = {
  rig: RigView,
  look: LookView,
  effects: EffectsView,
  pixels: PixelsView,
  cues: CuesView,
  busk: BuskView,
  timeline: TimelineView,
  output: OutputView,
};

/** The frame of the page: bar, stage, selection, view, ribbon. */
export function App() {
  const view = useDesk((state) => state.view);
  const shows = useDesk((state) => state.shows);
  const busking = useDesk((state) => state.busk !== 0);
  const baking = useDesk((state) => state.baking);
  const { data: rig } = useRig();
  usePageAsked();
  useActionKeys();
  useEffect(() => {
    const soon = window.setTimeout(
      () => void Promise.all([loadRig(), loadLook(), loadPixels(), loadCues(), loadTimeline(), loadOutput()]),
      SOON_MS,
    );
    return () => clearTimeout(soon);
  }, []);
  const empty = rig?.fixtures.length === 0;
  useEffect(() => {
    if (empty) desk.show("rig"); // nothing else can be done first
  }, [empty]);
  const panel = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const tab = document.querySelector("header [role=tab][aria-selected=true]");
    panel.current!.id = tab?.getAttribute("aria-controls") ?? ""; // as the tabs call it, once they are there
  });
  const Shown = SHOWN[view];
  return (
    <Page>
      <TopBar />
      <LostNotice />
      <HeldNotice />
      <GoOnNotice />
      <RecordingNotice />
      <Stage />
      {!shows && view !== "cues" && view !== "timeline" && !(view === "busk" && busking) && <SelectionBar />}
      <main>
        <div
          key={shows ? "shows" : view}
          ref={panel}
          role="tabpanel"
          aria-label={shows ? "Shows" : VIEW_TITLES[view]}
        >
          <Suspense fallback={null}>{shows ? <ShowsPage /> : <Shown />}</Suspense>
        </div>
      </main>
      <WhyPanel />
      <Suspense fallback={null}>
        {baking && <BakeSheet key={`${baking.kind} ${baking.number}`} what={baking} />}
      </Suspense>
      <NowRibbon />
      <Shortcuts />
      <Toasts />
    </Page>
  );
}
