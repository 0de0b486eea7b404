// @vitest-environment jsdom
import { QueryObserver } from "@tanstack/react-query";
import { expect, it, vi } from "vitest";

import { queries, refresh } from "./queries";

it("asks anew for what is being asked for the first time while an edit is made", async () => {
  const waiting: ((answer: string) => void)[] = [];
  const observer = new QueryObserver(queries, {
    queryKey: ["cue-lists"],
    queryFn: () => new Promise<string>((resolve) => waiting.push(resolve)),
  });
  const stop = observer.subscribe(() => undefined);
  expect(waiting).toHaveLength(1);
  refresh();
  await vi.waitFor(() => expect(waiting).toHaveLength(2));
  waiting[0]!("before the edit");
  waiting[1]!("after it");
  await vi.waitFor(() => expect(observer.getCurrentResult().data).toBe("after it"));
  stop();
});
