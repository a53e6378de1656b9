import { ApiProblem } from '../door/ask.ts';
import { Signal } from '../ui/Signal.tsx';
import { bytesOf, isSetUp } from './nextEntry.ts';
import { outbox, useOutbox } from './outbox.ts';
import type { OutboxEntry } from './outboxStore.ts';
import { ProblemNote } from '../ui/ProblemNote.tsx';
import { useWho } from '../session/who.ts';
import { saveCopy } from './saveCopy.ts';
import { WAITING_WORDS, sizeWords } from './words.ts';
import { countWords } from '@lauta/words/count';

/** What waits on this device to be sent, and why. Nothing when nothing waits. */
export function OutboxPanel({
  except = null,
}: {
  /** Shown elsewhere on the page. */
  except?: string | null;
}) {
  const accountId = useWho().data?.account?.accountId ?? null;
  const { entries, unreadable, progress, trouble, isPaused, unstored } = useOutbox();
  // What was refused wants a person, wherever else it is spoken of.
  const shown = entries.filter(({ command, refused }) => refused !== null || command.commandId !== except);
  if (shown.length === 0 && unreadable.length === 0) return null;
  const bytes = shown.reduce((sum, entry) => sum + bytesOf(entry), 0);
  return (
    <section aria-labelledby="outbox" className="border-warning grid gap-2 border-l-4 pl-4">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h2 id="outbox">Waiting to be sent</h2>
        <button type="button" className="btn h-16 lg:h-12" onClick={() => outbox.setPaused(!isPaused)}>
          {isPaused ? 'Send again' : 'Pause'}
        </button>
      </div>
      <p role="status">
        {shown.length} on this device
        {bytes > 0 && (
          <>
            , <span className="num">{sizeWords(bytes)}</span>
          </>
        )}
        .{' '}
        {isPaused
          ? 'Sending is paused.'
          : trouble === 'away'
            ? 'No answer from the server: it is tried again by itself.'
            : trouble === 'sign-in'
              ? 'Sign in again, and it goes on where it was.'
              : 'It goes by itself.'}
      </p>
      <ol className="grid gap-1">
        {shown.map((entry) => (
          <Waiting
            key={entry.command.commandId}
            entry={entry}
            share={progress[entry.command.commandId] ?? null}
            isOthers={entry.accountId !== accountId}
            isUnstored={unstored.includes(entry.command.commandId)}
          />
        ))}
        {unreadable.map(({ key, value }) => (
          <li key={key} className="flex flex-wrap items-center gap-3">
            <Signal tone="fault">cannot be read by this version</Signal>
            <button
              type="button"
              className="btn h-16 lg:h-12"
              onClick={() => void saveCopy(`outbox-${key}`, value, [])}
            >
              Save a copy
            </button>
          </li>
        ))}
      </ol>
    </section>
  );
}

function Waiting({
  entry,
  share,
  isOthers,
  isUnstored,
}: {
  entry: OutboxEntry;
  share: number | null;
  isOthers: boolean;
  isUnstored: boolean;
}) {
  const { command, files, refused } = entry;
  return (
    <li className="grid gap-1">
      <span>
        {WAITING_WORDS[command.kind]}
        {files.length > 0 && (
          <span className="text-quiet">
            , {countWords(files.length, 'file', 'files')},{' '}
            <span className="num">{sizeWords(bytesOf(entry))}</span>
          </span>
        )}
      </span>
      {isOthers && <Signal tone="look">waits for the person who wrote it to sign in</Signal>}
      {isUnstored && <Signal tone="fault">this browser stores nothing more: keep the page open</Signal>}
      {share !== null && (
        <progress className="progress w-full" value={share} max={1} aria-label="Share that has arrived" />
      )}
      {refused && (
        <>
          <ProblemNote error={new ApiProblem(refused)} />
          <div className="flex gap-2">
            <button
              type="button"
              className="btn h-16 lg:h-12"
              onClick={() => void outbox.tryAgain(command.commandId)}
            >
              Try again
            </button>
            {command.kind === 'catch.claim' && refused.type === 'catch-exists' && (
              <button
                type="button"
                className="btn h-16 lg:h-12"
                onClick={() => void outbox.claimAnew(command.commandId)}
              >
                It is another fish: claim it
              </button>
            )}
            {isSetUp(entry) && (
              <button
                type="button"
                className="btn h-16 lg:h-12"
                onClick={() => void outbox.drop(command.commandId)}
              >
                Discard it
              </button>
            )}
            <button
              type="button"
              className="btn h-16 lg:h-12"
              onClick={() =>
                void saveCopy(
                  `outbox-${command.commandId}`,
                  entry,
                  files.map(({ fileId }) => fileId),
                )
              }
            >
              Save a copy
            </button>
          </div>
        </>
      )}
    </li>
  );
}
