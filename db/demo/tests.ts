import { brindlowTests } from "./bikes/brindlow.ts";
import { haulerTests } from "./bikes/hauler.ts";
import { pellamTests } from "./bikes/pellam.ts";
import { sectionTests } from "./bikes/sections.ts";
import { tarrickTests } from "./bikes/tarrick.ts";
import { vessockTests } from "./bikes/vessock.ts";
import { makersFrom, type DemoTest } from "./kit.ts";

export { type DemoTest } from "./kit.ts";

/** The desk's tests of two seasons, of every school the desk rides; some flawed on purpose, as the notes say. */
export function demoTests(nextId: () => string): readonly DemoTest[] {
  const makers = makersFrom(nextId);
  return [haulerTests, brindlowTests, pellamTests, tarrickTests, vessockTests, sectionTests].flatMap(
    (tests) => tests(makers),
  );
}
