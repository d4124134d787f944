import { backupStatus } from "#db/backup/keeping";
import { deskFolders, roomLeft } from "./desk.server";

/** Something about the desk itself that a person should see to. */
export interface DeskNotice {
  readonly weight: "fine" | "look" | "act";
  readonly sentence: string;
}

/** Less room than this is said, bytes; less than this is urgent. */
const LOW_BYTES = 2 * 1024 ** 3;
const LEAST_BYTES = 300 * 1024 ** 2;
/** A backup older than this is said, ms. */
const OLD_MS = 3 * 86_400_000;

const megabytes = (bytes: number) => `${Math.round(bytes / 1024 ** 2).toLocaleString("en")} MB`;

/** How the last backup stands, in a sentence. */
export function backupNotice(nowMs: number): DeskNotice | null {
  if (deskFolders.backups === null) return null;
  const status = backupStatus(deskFolders.backups);
  if (!status) return null;
  const hours = Math.max(0, Math.round((nowMs - Date.parse(status.at)) / 3_600_000));
  const ago =
    hours < 1 ? "within the hour" : hours < 48 ? `${hours} h ago` : `${Math.round(hours / 24)} days ago`;
  if (!status.ok)
    return { weight: "act", sentence: `The last backup (${ago}) failed. ${status.sentence} See Settings.` };
  if (nowMs - Date.parse(status.at) > OLD_MS)
    return { weight: "look", sentence: `The last backup was made ${ago}: make one under Settings.` };
  return { weight: "fine", sentence: `Last backup ${ago}. ${status.sentence}` };
}

/** What a person should know of the desk itself: backups, room on the disk. */
export async function deskNotices(nowMs = Date.now()): Promise<readonly DeskNotice[]> {
  const room = await roomLeft();
  const backup = backupNotice(nowMs);
  const disk: DeskNotice | null =
    room === null || room > LOW_BYTES
      ? null
      : room > LEAST_BYTES
        ? {
            weight: "look",
            sentence: `The disk has ${megabytes(room)} left: make room before long recordings.`,
          }
        : {
            weight: "act",
            sentence: `The disk has only ${megabytes(room)} left: what you enter may soon not be kept. Make room now.`,
          };
  return [...(disk ? [disk] : []), ...(backup ? [backup] : [])];
}
