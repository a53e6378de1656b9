import { useEffect, useState } from 'react';
import type { EventView } from '@lauta/contract';
import { clockOf, tapped } from '@lauta/core/care';
import type { Identifier } from '@lauta/core/identifier';
import type { GateStep } from '@lauta/core/planning';
import type { LengthSheet } from '@lauta/core/rules';
import type { MeasuringBoard } from '@lauta/vision';
import {
  recallCameraChoices,
  rememberCameraChoices,
  type CameraChoices,
} from '../../camera/cameraChoices.ts';
import type { Frame } from '../../camera/frames.ts';
import { useFrameAnalyses, type ReadFrame } from '../../camera/useFrameAnalyses.ts';
import { useWakeLock } from '../../camera/useWakeLock.ts';
import { useCareChoices } from '../../care/careChoices.ts';
import { appNow } from '../../clock/appClock.ts';
import { freshCatch, handlingOf } from '../../fish-clock/runningCatch.ts';
import type { useRunningCatch } from '../../fish-clock/useRunningCatch.ts';
import { outbox, useOutbox } from '../../outbox/outbox.ts';
import type { KnownBoards } from '../../queries/boards.ts';
import { useLatest } from '../../ui/useLatest.ts';
import { rememberChoices } from './choices.ts';
import { newDraft, type CatchDraft, type useDraft } from './draft.ts';
import { isProposalDue, isShotAgain, stageOf } from './stage.ts';
import { useTapeDraft } from './tapeDraft.ts';
import { useCatchFrames } from './useCatchFrames.ts';
import { usePairedFish } from './usePairedFish.ts';
import type { Claimed } from './useSending.ts';
import { useShots } from './useShots.ts';
import type { CatchId, EntrantId } from '@lauta/core/ids';

const NO_FRAMES: readonly Frame[] = [];
const NOTHING: ReadonlySet<GateStep> = new Set();

/** An event in which this entrant can claim by length now, and what this device keeps of its fish. */
export interface OpenWater {
  event: EventView;
  entrantId: EntrantId;
  sheet: LengthSheet;
  /** Board and species as they were chosen last. */
  choices: Pick<CatchDraft, 'boardId' | 'speciesId'>;
  board: MeasuringBoard | null;
  boards: KnownBoards;
  /** The entrant's card of the day. */
  card: Identifier | null;
  draft: CatchDraft | null;
  kept: Pick<ReturnType<typeof useDraft>, 'put' | 'change'>;
  fish: ReturnType<typeof useRunningCatch>;
}

export type WaterSession = ReturnType<typeof useWaterSession>;

/** The fish that is on, from the hook to its claim and its release: what stands, and what can be done with it. */
export function useWaterSession(water: OpenWater) {
  const { event, entrantId, sheet, card, draft, fish } = water;
  const { running, change: changeRunning, changeTo } = fish;
  const { eventId } = event;
  const { catchId } = running;
  const { phase, lifts } = clockOf(running.events, 0);
  const isOn = running.events.length > 0;
  const isOver = phase === 'over';
  const isRunning = isOn && !isOver;
  useWakeLock(isRunning);
  const frames = useCatchFrames(catchId);
  const tape = useTapeDraft(catchId);
  const camera = useCamera(isRunning);
  const shots = useShots({ eventId, entrantId, catchId, identifierCode: card?.code ?? null }, frames.add);
  const isBlank = !isOn && draft === null && tape.draft === null && frames.all?.length === 0;
  const paired = usePairedFish({ eventId, entrantId }, fish, isBlank);
  const care = useCareChoices();
  const claim = useProposal(water, { frames, phase, lifts: lifts.length, isBursting: shots.isBursting });
  return {
    ...water,
    running,
    changeRunning,
    phase,
    lifts: lifts.length,
    isOn,
    isOver,
    isRunning,
    frames,
    tape,
    camera,
    shots,
    isBlank,
    ...paired,
    ...claim,
    stage: stageOf({ phase, isTaped: tape.draft !== null, hasDraft: draft !== null, ...claim }),
    leftAs: handlingOf(running, care, sheet.airSeconds ?? null),
    advises: care.hints.advice,
    ready: useReadiness(catchId),
    claimedNow: (done: Claimed): void => {
      claim.setClaimed(done);
      water.kept.put(null);
      // A fish that is still in the net keeps its clock.
      if (isRunning) changeRunning((now) => ({ ...now, isClaimed: true }));
      else paired.startNext();
    },
    hookAnother: (): void => {
      const other = freshCatch();
      const hooked = tapped(other.events, 'hooked', appNow().getTime());
      if (hooked.ok) changeTo({ ...other, events: hooked.events });
    },
    begin: (photo: Blob): void => claim.begin(photo, shots.choose(photo)),
    throwAway: (): void => {
      water.kept.put(null);
      frames.throwAway();
    },
  };
}

/** What was made ready for this fish, by taps. */
function useReadiness(catchId: CatchId) {
  const [held, setHeld] = useState<{ of: string; done: ReadonlySet<GateStep> }>({ of: '', done: NOTHING });
  const done = held.of === catchId ? held.done : NOTHING;
  return {
    done,
    toggle: (step: GateStep): void => {
      const next = new Set(done);
      if (!next.delete(step)) next.add(step);
      setHeld({ of: catchId, done: next });
    },
  };
}

/** Which camera is open; one that was opened for the last fish opens by itself for this one. */
function useCamera(isRunning: boolean) {
  const [set, setCamera] = useState<CameraChoices['opens'] | undefined>(undefined);
  return {
    opened: set === undefined && isRunning ? recallCameraChoices().opens : (set ?? null),
    open: (opens: CameraChoices['opens']): void => {
      rememberCameraChoices({ opens });
      setCamera(opens);
    },
  };
}

/** What is to be claimed: the best frame by itself once the fish is back in the water, or a photograph of choice. */
function useProposal(
  { sheet, choices, board, boards, card, draft, kept: { put, change }, fish: { running } }: OpenWater,
  now: {
    frames: ReturnType<typeof useCatchFrames>;
    phase: ReturnType<typeof clockOf>['phase'];
    lifts: number;
    isBursting: boolean;
  },
) {
  const { catchId } = running;
  const [claimed, setClaimed] = useState<Claimed | null>(null);
  const [chosenSpecies, setChosenSpecies] = useState<string | null>(null);
  const [reshotAfter, setReshotAfter] = useState<number | null>(null);
  const isReshooting = isShotAgain(reshotAfter, now.lifts);
  const speciesId = draft?.speciesId ?? chosenSpecies ?? choices.speciesId;
  const proposal = useFrameAnalyses(now.frames.board ?? NO_FRAMES, {
    board,
    others: boards.all,
    approved: sheet.boards,
    expected: card,
  });
  const beginDraft = (next: CatchDraft): void => {
    setClaimed(null);
    setReshotAfter(null);
    put(next);
  };
  const propose = ({ frame, analysis }: ReadFrame): void =>
    beginDraft({
      ...newDraft(catchId, frame.photo, new Date(frame.takenAt), { ...choices, speciesId }),
      frameId: frame.frameId,
      isFromOutside: false,
      analysis,
      marks: analysis?.marks ?? null,
      ...(analysis?.found ? { boardId: analysis.found.boardId } : {}),
    });
  // The next fish takes this one's place a moment after the claim: until then its frames are no new proposal.
  const isClaimed = running.isClaimed || claimed?.catchId === catchId;
  const isDue = isProposalDue(
    { phase: now.phase, hasDraft: draft !== null, isReshooting },
    { isClaimed, isBursting: now.isBursting, isFaultless: proposal.isFaultless },
  );
  const best = isDue ? proposal.best : null;
  const latestPropose = useLatest(propose);
  useEffect(() => {
    if (best) latestPropose.current(best);
  }, [best, latestPropose]);
  return {
    proposal,
    propose,
    claimed,
    setClaimed,
    isReshooting,
    isDraftSent: useSentDraft(draft, put),
    shootAgain: (): void => {
      put(null);
      setReshotAfter(now.lifts);
    },
    begin: (photo: Blob, at: Date): void => beginDraft(newDraft(catchId, photo, at, choices)),
    speciesId,
    chooseSpecies: (chosen: string): void => {
      rememberChoices({ speciesId: chosen });
      setChosenSpecies(chosen);
      change({ speciesId: chosen });
    },
  };
}

/** A page that was killed between the outbox and the draft comes back with both: the outbox has it, the draft goes. */
function useSentDraft(draft: CatchDraft | null, put: (next: null) => void): boolean {
  const { entries } = useOutbox();
  const isSent =
    draft !== null &&
    (outbox.receiptOf(draft.commandId) !== undefined ||
      entries.some(({ command }) => command.commandId === draft.commandId));
  useEffect(() => {
    if (isSent) put(null);
  }, [isSent, put]);
  return isSent;
}
