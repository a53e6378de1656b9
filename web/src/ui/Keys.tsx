import { useEffect, useRef, useState } from 'react';

export interface PageKey {
  /** As `KeyboardEvent.key` gives it; letters in capitals. */
  key: string;
  what: string;
  act: () => void;
}

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName)) &&
  !(target instanceof HTMLInputElement && target.type === 'checkbox');

/** A page's keys. They rest while something is typed, and Enter is left to the button that has it. */
export function useKeys(keys: readonly PageKey[]): void {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.repeat || isTyping(event.target)) return;
      if (document.querySelector('dialog[open]')) return;
      const pressed = event.key.length === 1 ? event.key.toUpperCase() : event.key;
      if (
        pressed === 'Enter' &&
        event.target instanceof HTMLElement &&
        event.target.closest('a, button, summary')
      )
        return;
      const found = latest.current.find((one) => one.key === pressed);
      if (!found) return;
      event.preventDefault();
      found.act();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}

/** Shows the keys of the page on `?`. */
export function Keys({ keys }: { keys: readonly PageKey[] }) {
  const [isOpen, setOpen] = useState(false);
  const dialog = useRef<HTMLDialogElement>(null);
  useKeys([{ key: '?', what: 'keys', act: () => setOpen(true) }]);
  useEffect(() => {
    if (isOpen) dialog.current?.showModal();
  }, [isOpen]);
  return (
    <>
      <button type="button" className="linklike mt-3 hidden text-sm lg:inline" onClick={() => setOpen(true)}>
        Keys of this page <kbd className="key">?</kbd>
      </button>
      {isOpen && (
        <dialog ref={dialog} className="modal" aria-labelledby="keys" onClose={() => setOpen(false)}>
          <div className="modal-box border-base-content border">
            <h2 id="keys">Keys of this page</h2>
            <dl className="ruled mt-2">
              {keys.map(({ key, what }) => (
                <div key={key} className="flex items-center gap-4 py-1.5">
                  <dt className="w-16">
                    <kbd className="key">{key}</kbd>
                  </dt>
                  <dd>{what}</dd>
                </div>
              ))}
            </dl>
            <form method="dialog">
              <button className="btn mt-3">Close</button>
            </form>
          </div>
        </dialog>
      )}
    </>
  );
}
