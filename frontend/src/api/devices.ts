import { useQuery } from "@tanstack/react-query";

import { api, take, type Schemas } from "./client";
import { queries, refresh, tell } from "./queries";

export type DeviceView = Schemas["DeviceView"];
export type SimulatedDevice = Schemas["SimulatedDevice"];
type Devices = Schemas["DevicesView"];

const KEY = ["cue-lists", "devices"]; // asked for anew with the cues, which say what is sent to them

/** Outside devices, and what the simulated ones got. often: looked at while it comes. */
export const useDevices = (often = false) =>
  useQuery({
    queryKey: KEY,
    queryFn: async () => (await take(api.GET("/api/output/devices"))) as Devices,
    refetchInterval: often ? 500 : false,
  });

const kept = (devices: unknown) => queries.setQueryData(KEY, devices as Devices);

export const deviceEdits = {
  /** Refused is thrown: what is wrong is said in the form. */
  async keep(id: number | null, body: Schemas["DeviceContent"]): Promise<void> {
    const asked =
      id === null
        ? api.POST("/api/output/devices", { body })
        : api.PUT("/api/output/devices/{device_id}", { params: { path: { device_id: id } }, body });
    kept(await take<unknown>(asked as never));
    refresh();
  },
  async remove(id: number): Promise<void> {
    try {
      await take(api.DELETE("/api/output/devices/{device_id}", { params: { path: { device_id: id } } }));
    } catch (error) {
      tell(error);
    }
    refresh();
    void queries.invalidateQueries({ queryKey: KEY });
  },
  async unplug(speaks: "OSC" | "MIDI", gone: boolean): Promise<void> {
    try {
      kept(await take(api.POST("/api/output/devices/unplug", { body: { speaks, gone } })));
    } catch (error) {
      tell(error);
    }
  },
  async forget(): Promise<void> {
    kept(await take(api.POST("/api/output/devices/forget")));
  },
};
