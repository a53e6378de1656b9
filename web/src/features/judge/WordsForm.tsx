import { useEffect, useRef } from 'react';
import { Field } from '../../ui/Field.tsx';

export type Writing = 'refuse' | 'send-back';

const WORDS: Record<Writing, { label: string; action: string }> = {
  refuse: { label: 'Reason for the refusal', action: 'Refuse' },
  'send-back': { label: 'What the angler should send', action: 'Send back' },
};

/** The words that go with a refusal or a request; what was typed stays when the form is closed. */
export function WordsForm({
  writing,
  words,
  onWords,
  isBusy,
  send,
  close,
}: {
  writing: Writing;
  words: string;
  onWords: (words: string) => void;
  isBusy: boolean;
  send: () => void;
  close: () => void;
}) {
  const text = useRef<HTMLTextAreaElement>(null);
  useEffect(() => text.current?.focus(), [writing]);
  const { label, action } = WORDS[writing];
  return (
    <form
      className="grid gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
    >
      <Field label={label}>
        {(field) => (
          <textarea
            {...field}
            ref={text}
            rows={3}
            maxLength={500}
            className="textarea w-full text-base"
            value={words}
            onChange={(event) => onWords(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Escape') close();
              if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) send();
            }}
          />
        )}
      </Field>
      <div className="grid grid-cols-2 gap-2">
        <button type="button" className="btn" onClick={close}>
          Not now <kbd className="key">Esc</kbd>
        </button>
        <button type="submit" className="btn btn-primary" disabled={isBusy || words.trim() === ''}>
          {action}
        </button>
      </div>
    </form>
  );
}
