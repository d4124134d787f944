export const DRIVES = ["pedal", "throttle"] as const;
export type Drive = (typeof DRIVES)[number];
