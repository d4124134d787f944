import { Dialog, DialogBackdrop, DialogPanel, DialogTitle } from "@headlessui/react";

interface LeaveDialogProps {
  readonly onStay: () => void;
  readonly onLeave: () => void;
}

/** Asks before a page is left on which something is typed and not saved. */
export function LeaveDialog({ onStay, onLeave }: LeaveDialogProps) {
  return (
    <Dialog open onClose={onStay} className="relative z-20">
      <DialogBackdrop className="fixed inset-0 bg-ink/30" />
      <div className="fixed inset-0 grid place-items-center p-4">
        <DialogPanel className="sheet w-full max-w-md p-6">
          <DialogTitle className="text-lg font-bold">Leave without saving?</DialogTitle>
          <p className="my-3">What you typed on this page is not saved.</p>
          <div className="flex flex-wrap gap-3">
            <button type="button" className="button button-main" onClick={onStay}>
              Stay
            </button>
            <button type="button" className="button" onClick={onLeave}>
              Leave it
            </button>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
