export const DRIVES = ["pedal", "throttle"] as const;
