import { useEffect, useRef } from 'react';
import type { AskedFrameView } from '@lauta/contract';
import { custody } from '../custody/custody.ts';
import { outbox, useOutbox } from '../outbox/outbox.ts';
import { readFrame, removeFrames } from '../camera/frames.ts';
import { useAskedFrames } from '../queries/custody.ts';
import type { EntrantId, EventId } from '@lauta/core/ids';

/** Sends frames that a judge asks for, from the device that signed them, by itself and whatever page is open; once the results stand, the others are let go of. */
export function AskedFrames({
  eventId,
  entrantId,
  isOfficial,
}: {
  eventId: EventId;
  entrantId: EntrantId | null;
  isOfficial: boolean;
}) {
  const asked = useAskedFrames(eventId, entrantId);
  const { entries } = useOutbox();
  const answered = useRef(new Set<string>());
  const frames = asked.data;
  useEffect(() => {
    for (const frame of frames ?? []) {
      const isWaiting = entries.some(
        ({ command }) => command.kind === 'frame.send' && command.body.captureId === frame.captureId,
      );
      if (isWaiting || answered.current.has(frame.captureId)) continue;
      answered.current.add(frame.captureId);
      // One that could not be kept is tried again when the page is opened anew.
      void answer(eventId, frame).catch(() => undefined);
    }
  }, [eventId, frames, entries]);
  const isNobodyWaiting = frames?.length === 0;
  useEffect(() => {
    if (isOfficial && isNobodyWaiting)
      void custody
        .framesOf(eventId)
        .then(removeFrames)
        .catch(() => undefined);
  }, [eventId, isOfficial, isNobodyWaiting]);
  return null;
}

async function answer(
  eventId: EventId,
  { catchId, captureId, photographSha256 }: AskedFrameView,
): Promise<void> {
  const frameId = await custody.frameOf(captureId);
  // Another device signed it: that one answers.
  if (frameId === undefined) return;
  const frame = frameId === null ? null : await readFrame(frameId);
  await outbox.keep(
    'frame.send',
    eventId,
    { catchId, captureId, photographId: frame ? frame.frameId : null },
    frame
      ? {
          files: [
            { fileId: frame.frameId, blob: frame.photo, sha256: photographSha256, mediaType: 'image/jpeg' },
          ],
        }
      : {},
  );
}
