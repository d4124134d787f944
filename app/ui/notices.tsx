import type { DeskNotice } from "#app/services/notices.server";

const LOOK = { fine: "text-quiet", look: "text-ochre", act: "font-bold text-rust" } as const;

/** How the desk's own keeping stands: backups, room on the disk. */
export function Notices({
  notices,
  className = "",
}: {
  readonly notices: readonly DeskNotice[];
  readonly className?: string;
}) {
  if (notices.length === 0) return null;
  return (
    <ul className={className} aria-label="The desk itself">
      {notices.map(({ weight, sentence }) => (
        <li key={sentence} className={LOOK[weight]}>
          {sentence}
        </li>
      ))}
    </ul>
  );
}
