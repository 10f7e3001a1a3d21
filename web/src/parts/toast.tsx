/** Short words about what was done, with a way back where there is one. */
import { createContext, type ReactNode, useCallback, useContext, useState } from "react";

interface Toast {
  id: number;
  words: string;
  action?: { label: string; run: () => void };
}

type Say = (words: string, action?: Toast["action"]) => void;
const ToastContext = createContext<Say>(() => undefined);

export const useToast = () => useContext(ToastContext);

export function Toasts({ children }: { children: ReactNode }) {
  const [list, setList] = useState<Toast[]>([]);
  const say = useCallback<Say>((words, action) => {
    const id = Date.now() + Math.random();
    setList((all) => [...all.slice(-2), { id, words, action }]);
    setTimeout(
      () => setList((all) => all.filter((t) => t.id !== id)),
      action ? 12000 : Math.max(5000, words.length * 70),
    );
  }, []);
  return (
    <ToastContext value={say}>
      {children}
      <div
        role="status"
        className="fixed bottom-4 left-1/2 z-50 flex -translate-x-1/2 flex-col gap-2"
      >
        {list.map((t) => (
          <div
            key={t.id}
            className="flex items-center gap-4 rounded-card bg-ink px-4 py-2.5 text-panel"
          >
            <span>{t.words}</span>
            {t.action && (
              <button
                type="button"
                className="font-bold underline"
                onClick={() => {
                  t.action?.run();
                  setList((all) => all.filter((x) => x.id !== t.id));
                }}
              >
                {t.action.label}
              </button>
            )}
          </div>
        ))}
      </div>
    </ToastContext>
  );
}
