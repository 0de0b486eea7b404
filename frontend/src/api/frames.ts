/** Where the fields of live frames are, in bytes. Made by `make api`. */
export const VERSION = 2;
export const HEADER = { bytes: 24, magic: 0, version: 2, kind: 3, number: 4, time: 8, subject: 16, count: 20, running: 22 } as const;
export const HEAD = { bytes: 12, colour: 0, level: 3, zoom: 4, direction: 6 } as const;
export const RUNNING = { bytes: 20, number: 0, theta: 4, weight: 12, value: 16 } as const;
