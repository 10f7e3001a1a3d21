/** A dialog for a few typed values; everything with a way back needs no dialog at all. */
import { X } from "lucide-react";
import { Dialog } from "radix-ui";
import type { ReactNode } from "react";

interface Props {
  open: boolean;
  onClose: () => void;
  title: string;
  about?: string;
  wide?: boolean;
  /** False where one of the answers must be given. */
  closable?: boolean;
  children: ReactNode;
}

export function Ask({ open, onClose, title, about, wide, closable = true, children }: Props) {
  return (
    <Dialog.Root open={open} onOpenChange={(now) => !now && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/35" />
        <Dialog.Content
          className={`fixed top-1/2 left-1/2 z-50 max-h-[90vh] -translate-x-1/2 -translate-y-1/2 overflow-y-auto rounded-card border border-hair bg-panel p-5 ${wide ? "w-[min(46rem,94vw)]" : "w-[min(29rem,94vw)]"}`}
        >
          <Dialog.Title className="font-head text-lg font-bold">{title}</Dialog.Title>
          <Dialog.Description className={about ? "mt-0.5 text-soft" : "sr-only"}>
            {about ?? title}
          </Dialog.Description>
          {closable && (
            <Dialog.Close
              className="absolute top-3 right-3 rounded-md p-1 text-soft hover:text-ink"
              aria-label="Close"
            >
              <X size={18} />
            </Dialog.Close>
          )}
          <div className="mt-3">{children}</div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
