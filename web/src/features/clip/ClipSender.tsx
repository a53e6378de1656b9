import { useRef, useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { v7 as uuidv7 } from 'uuid';
import { CLIP_LIMITS } from '@lauta/contract';
import { hashHex } from '@lauta/core/ledger';
import { sendCommand } from '../../door/door.ts';
import { ApiProblem } from '../../door/http.ts';
import { uploadPhotograph } from '../../door/uploadPhotograph.ts';
import { Signal } from '../../frame/Signal.tsx';
import { ProblemNote } from '../../problem/ProblemNote.tsx';
import { useFrames, type Frame } from '../camera/frames.ts';
import { ClipPlayer } from './ClipPlayer.tsx';
import { clipRefusal, mediaTypeOf, type ClipRefusal } from './filmClip.ts';

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
  catchId: string;
  eventId: string;
  takesFiles?: boolean;
}) {
  const { frames, add, replace } = useFrames(catchId);
  const client = useQueryClient();
  const input = useRef<HTMLInputElement>(null);
  const [commandId] = useState(() => uuidv7());
  const [share, setShare] = useState<number | null>(null);
  const [refused, setRefused] = useState<ClipRefusal | null>(null);
  const [isSent, setSent] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const abort = useRef<AbortController | null>(null);
  const clip = frames?.findLast(({ role }) => role === 'clip') ?? null;
  const withoutClip = (): Frame[] => (frames ?? []).filter(({ role }) => role !== 'clip');
  const done = async (): Promise<void> => {
    setSent(true);
    // Kept until the server had it whole.
    await replace(withoutClip());
    await client.invalidateQueries({ queryKey: ['event', eventId] });
  };
  const send = async ({ frameId, photo }: Frame): Promise<void> => {
    const mediaType = mediaTypeOf(photo);
    if (abort.current || !mediaType) return;
    const stopping = new AbortController();
    abort.current = stopping;
    setShare(0);
    setError(null);
    try {
      await uploadPhotograph({
        photographId: frameId,
        eventId,
        photo,
        mediaType,
        sha256: hashHex(new Uint8Array(await photo.arrayBuffer())),
        onProgress: setShare,
        signal: stopping.signal,
      });
      await sendCommand('catch.clip', eventId, { catchId, clipId: frameId }, commandId);
      await done();
    } catch (problem) {
      // An answer that was lost, or another tab.
      if (problem instanceof ApiProblem && problem.type === 'clip-sent') await done();
      else if (!stopping.signal.aborted) setError(problem);
    } finally {
      abort.current = null;
      setShare(null);
    }
  };
  const choose = async (file: File): Promise<void> => {
    const why = await clipRefusal(file);
    setRefused(why);
    if (!why) await add(file, new Date(file.lastModified), 'clip');
  };
  if (isSent) {
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
            <button
              type="button"
              className="btn h-16"
              disabled={share !== null}
              onClick={() => void replace(withoutClip())}
            >
              Throw it away
            </button>
            <button
              type="button"
              className="btn btn-primary h-16"
              onClick={() => (share === null ? void send(clip) : abort.current?.abort())}
            >
              {share === null ? 'Send the clip' : 'Stop'}
            </button>
          </div>
          {share !== null && (
            <progress className="progress w-full" value={share} max={1} aria-label="Sending the clip" />
          )}
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
      <input
        ref={input}
        type="file"
        accept="video/webm,video/mp4"
        aria-label="File with the clip"
        className="hidden"
        onChange={({ currentTarget }) => {
          const file = currentTarget.files?.[0];
          currentTarget.value = '';
          if (file) void choose(file);
        }}
      />
    </section>
  );
}
