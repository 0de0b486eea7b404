import { moved } from "../../cues/messages";

/** Numbers in which one is moved by a place. */
export const movedBy = (ids: number[], id: number, by: 1 | -1) => moved(ids, ids.indexOf(id), by);
