/** A dialog for a few typed values; everything with a way back needs no dialog at all. */
import { Dialog } from "radix-ui";
import type { ReactNode } from "react";

interface Props {
  open: boolean;
  onClose: () => void;
  title: string;
  about?: string;
  wide?: boolean;
  children: ReactNode;
}

export function Ask({ open, onClose, title, about, wide, children }: Props) {
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
          <div className="mt-3">{children}</div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
