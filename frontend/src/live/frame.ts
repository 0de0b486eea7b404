/** Binary frames from the engine; see docs/formats.md, "Live frames". */

import { HEAD, HEADER, RUNNING, VERSION } from "../api/frames";

export const HEADER_BYTES = HEADER.bytes;
export const HEAD_BYTES = HEAD.bytes;
const RUNNING_BYTES = RUNNING.bytes;

export interface Running {
  number: number;
  theta: number;
  weight: number;
  /** What its first attribute of its first head is at on stage, 0 to 1 of its range. */
  value: number;
}
export interface HeadsFrame {
  kind: "heads";
  number: number;
  time: number;
  rig: number;
  count: number;
  /** 12 bytes a head: red, green, blue, level (0–255), zoom (u16, 0.01°), direction (3 × i16, 1/32767). */
  heads: DataView;
  running: Running[];
}
export interface UniverseFrame {
  kind: "universe";
  universe: number;
  slots: Uint8Array;
}

/** Read a frame; null when it is none, or of a version that this page does not know. */
export function readFrame(buffer: ArrayBuffer): HeadsFrame | UniverseFrame | null {
  if (buffer.byteLength < HEADER_BYTES) return null;
  const view = new DataView(buffer);
  if (view.getUint8(0) !== 0x5a || view.getUint8(1) !== 0x42 || view.getUint8(HEADER.version) !== VERSION)
    return null;
  const kind = view.getUint8(HEADER.kind);
  const subject = view.getUint32(HEADER.subject, true);
  const count = view.getUint16(HEADER.count, true);
  const runs = view.getUint16(HEADER.running, true);
  const body = HEADER_BYTES;
  if (kind === 2) {
    return {
      kind: "universe",
      universe: subject,
      slots: new Uint8Array(buffer, body, Math.min(count, buffer.byteLength - body)),
    };
  }
  if (kind !== 1 || buffer.byteLength < body + count * HEAD_BYTES + runs * RUNNING_BYTES) return null;
  const running: Running[] = [];
  for (let n = 0, at = body + count * HEAD_BYTES; n < runs; n++, at += RUNNING_BYTES) {
    running.push({
      number: view.getUint32(at + RUNNING.number, true),
      theta: view.getFloat64(at + RUNNING.theta, true),
      weight: view.getFloat32(at + RUNNING.weight, true),
      value: view.getFloat32(at + RUNNING.value, true),
    });
  }
  return {
    kind: "heads",
    number: view.getUint32(HEADER.number, true),
    time: view.getFloat64(HEADER.time, true),
    rig: subject,
    count,
    heads: new DataView(buffer, body, count * HEAD_BYTES),
    running,
  };
}
