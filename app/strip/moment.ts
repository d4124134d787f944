/** A moment of the ride's day: "10:41" at the ride's offset, ISO 8601; null when no time was typed. */
export function momentOf(day: string, time: string, utcOffset: string): string | null {
  if (time === "") return null;
  const at = Date.parse(`${day}T${time.padStart(5, "0")}:00${utcOffset}`);
  return Number.isNaN(at) ? null : new Date(at).toISOString();
}

/** "10:41" at the ride's offset, for the time field. */
export function clockOf(timeS: number | null, utcOffset: string): string {
  if (timeS === null) return "";
  const [, sign, hours, minutes] = /^([+-])(\d\d):(\d\d)$/.exec(utcOffset) ?? ["", "+", "0", "0"];
  const shift = (sign === "-" ? -1 : 1) * (Number(hours) * 3600 + Number(minutes) * 60);
  return new Date((timeS + shift) * 1000).toISOString().slice(11, 16);
}
