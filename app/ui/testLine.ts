import { formatQuantity, type System } from "#core/base";
import type { Test } from "#core/records";

const MONTH = new Intl.DateTimeFormat("en-US", { month: "short", timeZone: "UTC" });

/** A day as it is read: "18 Oct 2026". */
export function dayText(day: string): string {
  const at = new Date(`${day.slice(0, 10)}T00:00:00Z`);
  return `${at.getUTCDate()} ${MONTH.format(at)} ${at.getUTCFullYear()}`;
}

/** The sentence under a test's title: method, drive, course, weather, day, rider, from what was noted. */
export function testSentence(
  test: Test,
  names: { readonly bike?: string; readonly setUp?: string | null; readonly rider?: string | null },
  system: System,
): string {
  const parts = [
    names.bike,
    names.setUp,
    test.school,
    test.drive === "throttle" ? "throttle" : "pedalled",
    test.course,
    test.airTempC === undefined ? "" : formatQuantity(test.airTempC, "temperature", system),
    test.wind && `wind ${test.wind}`,
    dayText(test.day),
    names.rider ? `${names.rider} riding` : "",
  ];
  return parts.filter(Boolean).join(", ");
}
