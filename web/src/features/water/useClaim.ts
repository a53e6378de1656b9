import type { Handling } from '@lauta/core/care';
import { hashHex } from '@lauta/core/ledger';
import type { BenchNotes, BoardMarks } from '@lauta/vision';
import type { Frame } from '../../camera/frames.ts';
import type { OpenedPhoto } from '../../bench/benchCalls.ts';
import { lastClockOffset } from '../../device/preparedness.ts';
import type { CaptureTime } from '@lauta/core/catch';
import type { CatchDraft } from './draft.ts';
import { useSending, type Claimed } from './useSending.ts';
import type { EntrantId } from '@lauta/core/ids';

/** What every claim tells beside its measurement. */
export function claimExtras(handling: Handling | null) {
  const clockOffsetMs = lastClockOffset();
  return {
    ...(clockOffsetMs === null ? {} : { clockOffsetMs }),
    ...(handling ? { handling: { ...handling, events: [...handling.events] } } : {}),
  };
}

/** Claims the fish in a photograph on the bench. */
export function useClaim({
  draft,
  photo,
  entrantId,
  capture,
  code,
  marks,
  bench,
  handling,
  portrait,
  onClaimed,
}: {
  draft: CatchDraft;
  photo: OpenedPhoto;
  entrantId: EntrantId;
  capture: CaptureTime;
  code: string | null;
  marks: BoardMarks;
  bench: BenchNotes | null;
  handling: Handling | null;
  portrait: Frame | null;
  onClaimed: (claimed: Claimed) => void;
}) {
  const { send, ...state } = useSending(onClaimed);
  const claim = (claimedSteps: number): Promise<void> => {
    const { photographId, catchId, measurementId, speciesId, boardId } = draft;
    return send({
      commandId: draft.commandId,
      files: async () => [
        { fileId: photographId, blob: draft.photo, sha256: photo.sha256, mediaType: 'image/jpeg' },
        ...(portrait
          ? [
              {
                fileId: portrait.frameId,
                blob: portrait.photo,
                sha256: hashHex(new Uint8Array(await portrait.photo.arrayBuffer())),
                mediaType: 'image/jpeg' as const,
              },
            ]
          : []),
      ],
      claim: {
        catchId,
        entrantId,
        speciesId,
        captured: capture,
        photographs: [
          { photographId, role: 'board', isFromOutside: draft.isFromOutside },
          ...(portrait
            ? [{ photographId: portrait.frameId, role: 'person' as const, isFromOutside: false }]
            : []),
        ],
        measurement: {
          kind: 'board',
          measurementId,
          photographId,
          boardId,
          marks,
          ...(bench ? { bench: { ...bench, byHand: [...bench.byHand] } } : {}),
        },
        claimedSteps,
        identifierCode: (draft.identifierCode ?? code)?.trim() || null,
        ...claimExtras(handling),
      },
    });
  };
  return { claim, ...state };
}
