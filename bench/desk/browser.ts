import { setTimeout } from "node:timers/promises";
import { chromium } from "@playwright/test";
import { needChromium } from "../../command/packages.ts";
import { CHROMIUM_FLAGS } from "../../command/throwaway.ts";
import type { Report } from "../report.ts";
import { timed, type Running } from "./running.ts";

const FIRST_PAGE_BYTES = 220_000;

/** What a browser is sent for its first page, and how soon it answers on slow processors. */
export async function benchBrowser(report: Report, { address }: Running): Promise<readonly boolean[]> {
  const fine: boolean[] = [];
  const browser = await chromium.launch({ executablePath: needChromium(), args: CHROMIUM_FLAGS });
  try {
    for (const path of ["/", "/ride", "/strip"]) {
      const context = await browser.newContext({ serviceWorkers: "block" });
      const tab = await context.newPage();
      const session = await context.newCDPSession(tab);
      await session.send("Network.enable");
      let bytes = 0;
      session.on("Network.loadingFinished", ({ encodedDataLength }) => {
        bytes += encodedDataLength;
      });
      await tab.goto(address + path);
      await tab.locator("html[data-alive]").waitFor({ state: "attached" });
      await setTimeout(300);
      const kept = bytes <= FIRST_PAGE_BYTES;
      process.stdout.write(
        `${`first page ${path}: bytes sent`.padEnd(62)} ${String(bytes).padStart(9)}              ${kept ? "within" : "OVER"} ${FIRST_PAGE_BYTES}\n`,
      );
      fine.push(kept);
      await context.close();
    }
    for (const rate of [4, 6])
      for (const path of ["/", "/compare?under=House"]) {
        const times: number[] = [];
        for (let i = 0; i < 3; i += 1) {
          const context = await browser.newContext({ serviceWorkers: "block" });
          const tab = await context.newPage();
          const session = await context.newCDPSession(tab);
          await session.send("Emulation.setCPUThrottlingRate", { rate });
          times.push(
            await timed(async () => {
              await tab.goto(address + path);
              await tab.locator("html[data-alive]").waitFor({ state: "attached" });
            }),
          );
          await context.close();
        }
        times.sort((a, b) => a - b);
        fine.push(report(`${path} alive on a processor ${rate} times slower`, times[1]!, 1300 * rate));
      }
  } finally {
    await browser.close();
  }
  return fine;
}
