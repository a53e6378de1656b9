import { useState } from 'react';
import type { ClockPhase } from '@lauta/core/care';
import type { Identifier } from '@lauta/core/identifier';
import type { MeasuringBoard } from '@lauta/vision';
import { CameraPanel } from '../../camera/CameraPanel.tsx';
import type { FrameRole } from '../../camera/frames.ts';
import type { FilmWish } from '../../camera/filmProtocol.ts';
import type { TakenFrame } from '../../camera/takeBurst.ts';
import { readStored, type Preference } from '../../device/stored.ts';
import type { CatchId } from '@lauta/core/ids';

/** The rules’ limit where the sheet is silent, degrees. */
const LIMIT_TILT_DEG = 20;
const SHORTEST_SIMULATED_MM = 300;
const SIMULATED_SPREAD_MM = 180;

/** The live camera over the fish that is on; one for each catch, board and camera. */
export function CatchCamera({
  catchId,
  isSimulated,
  board,
  otherBoards,
  look,
  card,
  zone,
  phase,
  shutterPlace,
  onFrame,
  onBurst,
  onFishSeen,
  onReady,
  onClose,
}: {
  catchId: CatchId;
  isSimulated: boolean;
  board: MeasuringBoard;
  otherBoards: readonly MeasuringBoard[];
  /** The kind of fish that the simulated camera films. */
  look: string;
  card: Identifier | null;
  zone: string;
  phase: ClockPhase;
  shutterPlace: HTMLElement | null;
  onFrame: (frame: TakenFrame, role: FrameRole) => void;
  onBurst: (isTaking: boolean) => void;
  onFishSeen: (atMs: number) => void;
  onReady: (ready: { isCardSeen: boolean }) => void;
  onClose: () => void;
}) {
  // The same fish as long as the same catch is on, whatever kind it is called meanwhile.
  const [film] = useState(() => (isSimulated ? filmOf(catchId, board, look, card) : null));
  return (
    <CameraPanel
      board={board}
      otherBoards={otherBoards}
      limitTiltDeg={LIMIT_TILT_DEG}
      zone={zone}
      film={film}
      phase={phase}
      shutterPlace={shutterPlace}
      onFrame={onFrame}
      onBurst={onBurst}
      onFishSeen={onFishSeen}
      onReady={onReady}
      onClose={onClose}
    />
  );
}

/** Whoever wants to see the same fish again and again keeps its number under this key. */
const FILM_SEED: Preference<number> = { key: 'lauta-film-seed', parse: (text) => Number(text) || 0 };

/** What the simulated camera films for a catch: always the same fish. */
export function filmOf(
  catchId: CatchId,
  board: MeasuringBoard,
  look: string,
  identifier: Identifier | null,
): FilmWish {
  const seed = readStored(FILM_SEED) || Number.parseInt(catchId.slice(-8), 16);
  const lengthMm = SHORTEST_SIMULATED_MM + (seed % SIMULATED_SPREAD_MM);
  return { seed, board, look, lengthMm, identifier };
}
