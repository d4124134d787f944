import { spawn } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Browser, Page } from "@playwright/test";
import { ROOT } from "./paths.ts";
import { alive, DESK } from "./rideShots.ts";

const OWNER = { name: "Maren", passphrase: "four quiet levee words" };

/** A demo desk shared over HTTPS, in a process and a folder of its own; answers the link that lets its owner in. */
async function shareDemo(): Promise<{ readonly link: string; end(): Promise<void> }> {
  const folder = mkdtempSync(join(tmpdir(), "barometron-team-"));
  const child = spawn(
    process.execPath,
    ["--import", "tsx", "command/main.ts", "demo", "--share", "--at", "desk.localhost", "--port", "4590"],
    { cwd: ROOT, env: { ...process.env, BAROMETRON_DATA: folder, DATABASE_URL: "" }, stdio: "pipe" },
  );
  const gone = new Promise<void>((resolve) => child.once("exit", () => resolve()));
  const link = await new Promise<string>((resolve, reject) => {
    let said = "";
    const read = (text: Buffer) => {
      said += text.toString();
      // The link that lets the owner in is in a file of its user's alone.
      const file = /alone:\s+(\S+)/.exec(said)?.[1];
      if (file && said.includes("Barometron is ready")) resolve(readFileSync(file, "utf8").trim());
    };
    child.stderr.on("data", read);
    child.stdout.on("data", read);
    void gone.then(() => reject(new Error(`The shared desk did not start: ${said}`)));
  });
  return {
    link,
    end: async () => {
      child.kill("SIGTERM");
      await gone;
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

async function comeIn(page: Page, link: string): Promise<void> {
  await page.goto(link);
  await alive(page);
  await page.getByLabel("Name you go by").fill(OWNER.name);
  await page.getByLabel("Passphrase", { exact: true }).fill(OWNER.passphrase);
  await page.getByLabel("Passphrase, once more").fill(OWNER.passphrase);
  await page.getByRole("button", { name: "Come in" }).click();
  await page.getByRole("heading", { level: 1, name: "Today" }).waitFor();
}

/** Pictures of a shared desk: the door, a phone being paired. Answers how many were taken. */
export async function teamShots(browser: Browser, folder: string): Promise<number> {
  const { link, end } = await shareDemo();
  const context = await browser.newContext({
    ...{ viewport: DESK, serviceWorkers: "block", ignoreHTTPSErrors: true },
  });
  const at = new URL(link).origin;
  const page = await context.newPage();
  const keep = async (name: string) => {
    await page.waitForTimeout(500);
    await page.screenshot({ path: join(folder, `${name}.png`) });
  };
  try {
    await page.goto(`${at}/sign-in`);
    await alive(page);
    await keep("sign-in");
    await comeIn(page, link);
    await page.goto(`${at}/demo`);
    await page.goto(`${at}/settings/phones`);
    await alive(page);
    await page.getByLabel("Name of the phone").fill("Levee phone");
    await page.getByRole("button", { name: "Show its code" }).click();
    await page.getByLabel("The code as an address").waitFor();
    await keep("phones");
    return 2;
  } finally {
    await context.close();
    await end();
  }
}
