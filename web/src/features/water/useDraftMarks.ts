import { useMemo, useState } from 'react';
import type { Identifier } from '@lauta/core/identifier';
import { stepsReached, type LengthSheet } from '@lauta/core/rules';
import { MARK_NAMES, type BoardMarks, type MarkName, type PhotoAnalysis } from '@lauta/vision';
import { benchNotes, startMarks } from '../../bench/startMarks.ts';
import type { OpenedPhoto } from '../../bench/benchCalls.ts';
import type { HandleId } from '../../bench/handles.ts';
import { useAnalysis, useReading, type Bench } from '../../bench/useBench.ts';
import { useInEvent } from '../../event/inEvent.ts';
import { useBoards } from '../../queries/boards.ts';
import type { CatchDraft } from './draft.ts';
import type { BoardId } from '@lauta/core/ids';

/** Marks before a change, to go back to. */
interface Step {
  marks: BoardMarks | null;
  byHand: CatchDraft['byHand'];
}

const MOST_STEPS = 200;
const TIPS = ['nose', 'tail'] as const;

interface OnBench {
  bench: Bench | null;
  photo: OpenedPhoto;
  draft: CatchDraft;
  sheet: LengthSheet;
  card: Identifier | null;
  change: (part: Partial<CatchDraft>) => void;
}

export type DraftMarks = ReturnType<typeof useDraftMarks>;

/** The marks of the photograph on the bench: found by it, moved by hand, and what they read. */
export function useDraftMarks(of: OnBench) {
  const { bench, photo, draft, sheet, card, change } = of;
  const { event } = useInEvent();
  const boards = useBoards(event.eventId);
  const board = boards.find(draft.boardId);
  const { analysis, byHand } = draft;
  const hasMarks = draft.marks !== null;
  const [chosen, setChosen] = useState<HandleId | null>('tail');
  const [wantsHandles, setWantsHandles] = useState(false);
  const history = useHistory(draft, change);
  const search = useAnalysis(
    bench,
    photo,
    board,
    boards.all,
    sheet.boards,
    card,
    analysis === null && !hasMarks,
    (found) => {
      history.forget();
      change(foundPart(found));
    },
  );
  const isSearching = search.progress !== null;
  const start = useMemo(() => startMarks(analysis, boards.all, photo), [analysis, boards, photo]);
  const marks = draft.marks ?? start;
  const notes = useMemo(
    () => benchNotes(analysis, hasMarks && analysis?.marks ? byHand : withTips(byHand)),
    [analysis, byHand, hasMarks],
  );
  const { reading, isCurrent } = useReading(bench, photo, board, isSearching ? null : marks, notes);
  const snapping = useSnapping({ ...of, board, marks, boards, remember: history.remember });
  const read = reading?.ok ? reading.value : null;
  return {
    board,
    boards,
    marks,
    notes,
    hasMarks,
    chosen,
    setChosen,
    search,
    isSearching,
    reading,
    read,
    reached: read ? stepsReached(sheet.measure, read.apparentMm) : null,
    /** What stands here is what the marks read, and nothing is under way. */
    isSettled: !isSearching && !snapping.isSnapping && isCurrent && read !== null && hasMarks,
    hasHandles: !isSearching && (wantsHandles || !hasMarks || byHand.length > 0),
    askForHandles: () => setWantsHandles(true),
    setMarks: (next: BoardMarks): void => {
      history.remember();
      snapping.forgetFailure();
      change({ marks: next, byHand: chosen ? union(byHand, movedMarks(marks, next)) : byHand });
    },
    undo: history.undo,
    snap: snapping.snap,
    isSnapping: snapping.isSnapping,
    hasSnapFailed: snapping.hasFailed,
    searchAgain: (): void => {
      history.forget();
      setWantsHandles(false);
      change({ analysis: null, marks: null, byHand: [], claimedSteps: null });
    },
    // Marks that nobody has touched belong to the board that they were found on.
    chooseBoard: (boardId: BoardId): void =>
      change(byHand.length === 0 ? { boardId, analysis: null, marks: null } : { boardId }),
  };
}

function movedMarks(before: BoardMarks, after: BoardMarks): MarkName[] {
  return MARK_NAMES.filter((name) => JSON.stringify(before[name]) !== JSON.stringify(after[name]));
}

const union = (a: readonly MarkName[], b: readonly MarkName[]): MarkName[] => [...new Set([...a, ...b])];
const withTips = (byHand: readonly MarkName[]): MarkName[] => union(byHand, TIPS);

function foundPart(found: PhotoAnalysis): Partial<CatchDraft> {
  return {
    analysis: found,
    marks: found.marks,
    byHand: [],
    ...(found.found ? { boardId: found.found.boardId } : {}),
  };
}

function useHistory({ marks, byHand }: CatchDraft, change: OnBench['change']) {
  const [steps, setSteps] = useState<readonly Step[]>([]);
  const last = steps.at(-1);
  return {
    remember: () => setSteps((former) => [...former.slice(-MOST_STEPS), { marks, byHand }]),
    forget: () => setSteps([]),
    undo: last
      ? () => {
          setSteps(steps.slice(0, -1));
          change(last);
        }
      : null,
  };
}

/** Corners that were set roughly by hand, laid onto the lines near them. */
function useSnapping({
  bench,
  photo,
  draft,
  sheet,
  card,
  change,
  board,
  boards,
  marks,
  remember,
}: OnBench & {
  board: ReturnType<ReturnType<typeof useBoards>['find']>;
  boards: ReturnType<typeof useBoards>;
  marks: BoardMarks;
  remember: () => void;
}) {
  const [isSnapping, setSnapping] = useState(false);
  const [hasFailed, setFailed] = useState(false);
  const snap = async (): Promise<void> => {
    if (!bench || !board) return;
    setSnapping(true);
    const asked = { board, others: boards.all, approved: sheet.boards, expected: card, photo };
    const found = await bench.call('analyse', { ...asked, near: marks.corners }).catch(() => null);
    setSnapping(false);
    if (!found?.found || found.found.boardId !== draft.boardId) {
      setFailed(true);
      return;
    }
    remember();
    // What was found by hand apart from the corners stays.
    const kept = draft.byHand.filter((name) => name !== 'corners');
    change({
      analysis: found,
      byHand: found.marks ? kept : withTips(kept),
      marks: {
        corners: found.found.corners,
        nose: kept.includes('nose') || !found.marks ? marks.nose : found.marks.nose,
        tail: kept.includes('tail') || !found.marks ? marks.tail : found.marks.tail,
      },
    });
  };
  return { snap, isSnapping, hasFailed, forgetFailure: () => setFailed(false) };
}
