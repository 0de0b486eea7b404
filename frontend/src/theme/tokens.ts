import { createGlobalStyle } from "styled-components";

/** The stage is dark in both themes: light is only seen against the dark. For canvases; styles use `--stage-…`. */
export const STAGE = {
  ground: "#0b0907",
  ink: "#14110e",
  wire: "#3a342d",
  head: "#6b6257",
  edge: "#867c6f",
  quiet: "#aaa092",
  bone: "#efe7d8",
};
const stageTokens = Object.entries(STAGE)
  .map(([name, colour]) => `--stage-${name}: ${colour};`)
  .join(" ");

/** The only colours of the interface: ink and bone, without hue. Hue is what lights do. */
export const GlobalStyle = createGlobalStyle`
  :root {
    color-scheme: dark;
    --ink: #14110e; --deep: #0b0907; --raised: #1e1a16; --line: #3a342d; --edge: #867c6f;
    --quiet: #aaa092; --bone: #efe7d8; --on-bone: #14110e; --focus: #efe7d8;
    --hatch: repeating-linear-gradient(135deg, var(--bone) 0 2px, transparent 2px 5px);
    --strokes: repeating-linear-gradient(90deg, var(--bone) 0 2px, transparent 2px 4px);
    --veil: rgb(0 0 0 / 0.6);
    ${stageTokens}
    --words: "Atkinson Hyperlegible Next Variable", sans-serif;
    --numbers: "Atkinson Hyperlegible Mono Variable", monospace;
  }
  :root[data-theme="light"] {
    color-scheme: light;
    --ink: #f3eddf; --deep: #14110e; --raised: #e8e0cf; --line: #c9bfac; --edge: #7a7061;
    --quiet: #5b5346; --bone: #1c1814; --on-bone: #f3eddf; --focus: #1c1814;
  }
  * { box-sizing: border-box; }
  html, body, #root { height: 100%; margin: 0; }
  body {
    background: var(--ink); color: var(--bone); overflow: hidden;
    font: 400 15px/1.35 var(--words); -webkit-font-smoothing: antialiased;
  }
  h1, h2, h3, p { margin: 0; }
  h2, h3 { font-size: 15px; font-weight: 650; }
  :focus-visible, [data-focus-visible] { outline: 2px solid var(--focus); outline-offset: 2px; }
  ::selection { background: var(--bone); color: var(--on-bone); }
  * { scrollbar-width: thin; scrollbar-color: var(--line) transparent; }
`;
