import { dayText, formatQuantity, type System } from "#core/base";
import type { Test } from "#core/records";

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
