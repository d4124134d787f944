import { Dialog, DialogBackdrop, DialogPanel, DialogTitle } from "@headlessui/react";

const KEYS = [
  ["g then 1 to 6", "go to Bikes, Plan, Ride, Strip, Compare, Sheet"],
  ["g then t", "go to Today"],
  ["← →", "on a strip: the mark before, the mark after"],
  ["x", "on a strip: exclude the chosen reading, or include it again"],
  ["c, b, s", "on a ride: check-in, bar lost, stop or go"],
  ["1 to 9, t", "on a ride: a level, the throttle"],
  ["/", "on a ride: to the line"],
  ["?", "this list"],
] as const;

/** The list of keys. */
export default function KeyList({ onClose }: { readonly onClose: () => void }) {
  return (
    <Dialog open onClose={onClose} className="relative z-20">
      <DialogBackdrop className="fixed inset-0 bg-ink/30" />
      <div className="fixed inset-0 grid place-items-center p-4">
        <DialogPanel className="sheet w-full max-w-md p-6">
          <DialogTitle className="text-lg font-bold">Keys</DialogTitle>
          <dl className="my-4 grid grid-cols-[auto_1fr] gap-x-6 gap-y-2">
            {KEYS.map(([key, what]) => (
              <div key={key} className="contents">
                <dt className="font-mono text-sm">{key}</dt>
                <dd>{what}</dd>
              </div>
            ))}
          </dl>
          <button type="button" className="button" onClick={onClose}>
            Close
          </button>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
