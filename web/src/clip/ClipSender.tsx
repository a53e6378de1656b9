import { useRef, useState } from 'react';
import { CLIP_LIMITS } from '@lauta/contract';
import { hashHex } from '@lauta/core/ledger';
import { ApiProblem } from '../door/ask.ts';
import { outbox, useOutbox } from '../outbox/outbox.ts';
import { FileInput } from '../ui/FileInput.tsx';
import { Signal } from '../ui/Signal.tsx';
import { ProblemNote } from '../ui/ProblemNote.tsx';
import { useFrames, type Frame } from '../camera/frames.ts';
import { ClipPlayer } from './ClipPlayer.tsx';
import { clipRefusal, mediaTypeOf, type ClipRefusal } from './filmClip.ts';
import type { CatchId, EventId } from '@lauta/core/ids';

const REFUSAL_WORDS: Record<ClipRefusal, string> = {
  type: 'This file is no film that can be shown: WebM or MP4, as the camera stored it.',
  bytes: `A clip has at most ${CLIP_LIMITS.maxBytes / 1024 / 1024} MB.`,
  seconds: `A clip has at most ${CLIP_LIMITS.maxSeconds} seconds.`,
};

/** The clip of a claimed fish's release: the one that was filmed here, or a file; sent when it is asked for. */
export function ClipSender({
  catchId,
  eventId,
  takesFiles = false,
}: {
  catchId: CatchId;
  eventId: EventId;
  takesFiles?: boolean;
}) {
  const { frames, add, replace } = useFrames(catchId);
  const input = useRef<HTMLInputElement>(null);
  const { entries, progress } = useOutbox();
  const [refused, setRefused] = useState<ClipRefusal | null>(null);
  const [sent, setSent] = useState<string | null>(null);
  const [error, setError] = useState<unknown>(null);
  const isKeeping = useRef(false);
  const clip = frames?.findLast(({ role }) => role === 'clip') ?? null;
  const withoutClip = (): Frame[] => (frames ?? []).filter(({ role }) => role !== 'clip');
  const send = async ({ frameId, photo }: Frame): Promise<void> => {
    const mediaType = mediaTypeOf(photo);
    if (isKeeping.current || !mediaType) return;
    isKeeping.current = true;
    setError(null);
    try {
      const sha256 = hashHex(new Uint8Array(await photo.arrayBuffer()));
      const files = [{ fileId: frameId, blob: photo, sha256, mediaType }];
      const commandId = await outbox.keep('catch.clip', eventId, { catchId, clipId: frameId }, { files });
      setSent(commandId);
      // The outbox holds it now, until the server has it whole.
      await replace(withoutClip());
    } catch (problem) {
      setError(problem);
    } finally {
      isKeeping.current = false;
    }
  };
  const choose = async (file: File): Promise<void> => {
    const why = await clipRefusal(file);
    setRefused(why);
    if (!why) await add(file, new Date(file.lastModified), 'clip');
  };
  const waiting = entries.find(({ command }) => command.kind === 'catch.clip' && command.body.catchId === catchId); // prettier-ignore
  if (waiting && !waiting.refused) {
    return (
      <div role="status" className="grid max-w-md gap-1">
        <Signal tone="look">the clip is kept on this device and on its way</Signal>
        <progress
          className="progress w-full"
          value={progress[waiting.command.commandId] ?? 0}
          max={1}
          aria-label="Share of the clip that has arrived"
        />
      </div>
    );
  }
  if (waiting?.refused) {
    return (
      <div className="grid max-w-md gap-2">
        <ProblemNote error={new ApiProblem(waiting.refused)} />
        <button
          type="button"
          className="btn h-16"
          onClick={() => void outbox.drop(waiting.command.commandId)}
        >
          Throw it away
        </button>
      </div>
    );
  }
  if (sent && outbox.receiptOf(sent) !== undefined) {
    return (
      <p role="status">
        <Signal tone="clear">the clip of the release is with the judges</Signal>
      </p>
    );
  }
  if (!clip && !takesFiles) return null;
  return (
    <section aria-label="Clip of the release" className="grid max-w-md gap-2">
      {clip && (
        <>
          <ClipPlayer clip={clip.photo} />
          <div className="grid grid-cols-2 gap-2">
            <button type="button" className="btn h-16" onClick={() => void replace(withoutClip())}>
              Throw it away
            </button>
            <button type="button" className="btn btn-primary h-16" onClick={() => void send(clip)}>
              Send the clip
            </button>
          </div>
        </>
      )}
      {!clip && (
        <>
          <button type="button" className="btn h-16" onClick={() => input.current?.click()}>
            Add a clip of the release
          </button>
          <p className="text-quiet text-sm">
            At most {CLIP_LIMITS.maxSeconds} seconds and {CLIP_LIMITS.maxBytes / 1024 / 1024} MB.
          </p>
        </>
      )}
      {refused && (
        <p role="alert">
          <Signal tone="look">{REFUSAL_WORDS[refused]}</Signal>
        </p>
      )}
      <ProblemNote error={error} />
      <FileInput
        ref={input}
        label="File with the clip"
        accept="video/webm,video/mp4"
        onFile={(file) => void choose(file)}
      />
    </section>
  );
}
