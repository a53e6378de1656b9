import { useMemo, useState } from 'react';
import { useFrames, type Frame } from '../../camera/frames.ts';
import type { CatchId } from '@lauta/core/ids';

/** What was photographed and filmed of a catch, by what it is for; undoable where it is thrown away. */
export function useCatchFrames(catchId: CatchId) {
  const { frames: all, add, replace } = useFrames(catchId);
  const board = useMemo(() => all?.filter(({ role = 'board' }) => role === 'board') ?? null, [all]);
  const portraits = all?.filter(({ role }) => role === 'person') ?? [];
  /** Undefined until somebody chooses: then the last one goes with the claim. */
  const [portraitSet, setPortrait] = useState<string | null | undefined>(undefined);
  const portrait =
    portraits.find(({ frameId }) => frameId === portraitSet) ??
    (portraitSet === undefined ? portraits.at(-1) : undefined) ??
    null;
  const [thrown, setThrown] = useState<readonly Frame[] | null>(null);
  return {
    all,
    board,
    clip: all?.findLast(({ role }) => role === 'clip') ?? null,
    portraits,
    portrait,
    setPortrait,
    add,
    /** How many can be had back. */
    thrown: thrown && board?.length === 0 ? thrown.length : 0,
    throwAway: (): void => {
      setThrown(all);
      void replace([]);
    },
    haveBack: (): void => {
      if (thrown) void replace(thrown);
      setThrown(null);
    },
  };
}
