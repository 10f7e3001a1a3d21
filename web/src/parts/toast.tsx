/** Short words about what was done, with a way back where there is one: over the heads, off the foot of any step. */
import { Toast } from "radix-ui";
import { createContext, type ReactNode, useCallback, useContext, useState } from "react";

interface Said {
  id: number;
  words: string;
  action?: { label: string; run: () => void };
}

type Say = (words: string, action?: Said["action"]) => void;
const ToastContext = createContext<Say>(() => undefined);

export const useToast = () => useContext(ToastContext);

const WITH_ACTION_MS = 12_000;
const readingMs = (words: string) => Math.max(5000, words.length * 70);

export function Toasts({ children }: { children: ReactNode }) {
  const [list, setList] = useState<Said[]>([]);
  const say = useCallback<Say>(
    (words, action) =>
      setList((all) => [...all.slice(-2), { id: Date.now() + Math.random(), words, action }]),
    [],
  );
  const gone = (id: number) => setList((all) => all.filter((t) => t.id !== id));
  return (
    <ToastContext value={say}>
      <Toast.Provider swipeDirection="down">
        {children}
        {list.map((t) => (
          <OneToast key={t.id} said={t} onGone={() => gone(t.id)} />
        ))}
        <Toast.Viewport className="fixed top-14 left-1/2 z-50 flex -translate-x-1/2 flex-col gap-2 outline-none" />
      </Toast.Provider>
    </ToastContext>
  );
}

function OneToast({ said, onGone }: { said: Said; onGone: () => void }) {
  const { words, action } = said;
  return (
    <Toast.Root
      duration={action ? WITH_ACTION_MS : readingMs(words)}
      onOpenChange={(open) => !open && onGone()}
      className="flex items-center gap-4 rounded-card bg-ink px-4 py-2.5 text-panel"
    >
      <Toast.Title>{words}</Toast.Title>
      {action && (
        <Toast.Action
          altText={`${action.label}: ${words}`}
          className="font-bold underline"
          onClick={action.run}
        >
          {action.label}
        </Toast.Action>
      )}
    </Toast.Root>
  );
}
