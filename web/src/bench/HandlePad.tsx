import type { BoardMarks, Point } from '@lauta/vision';
import {
  HANDLES,
  HANDLE_WORDS,
  handlePoint,
  keyStep,
  moveHandle,
  type HandleId,
  type HandleWords,
} from './handles.ts';

const NUDGES = [
  { label: 'left', sign: '←', by: [-1, 0] },
  { label: 'up', sign: '↑', by: [0, -1] },
  { label: 'down', sign: '↓', by: [0, 1] },
  { label: 'right', sign: '→', by: [1, 0] },
] as const;

/** Chooses a handle and moves it by single pixels: whatever is dragged has a way without dragging. */
export function HandlePad({
  marks,
  onMarks,
  chosen,
  onChosen,
  undo,
  handles = HANDLES,
  words = HANDLE_WORDS,
}: {
  marks: BoardMarks;
  onMarks: (marks: BoardMarks) => void;
  chosen: HandleId | null;
  onChosen: (id: HandleId) => void;
  undo: (() => void) | null;
  handles?: readonly HandleId[];
  words?: HandleWords;
}) {
  const nudge = (by: Point): void => {
    if (!chosen) return;
    const [x, y] = handlePoint(marks, chosen);
    onMarks(moveHandle(marks, chosen, [x + by[0], y + by[1]]));
  };
  return (
    <div className="grid gap-2">
      <div
        role="group"
        aria-label="Handles"
        className={`grid gap-1 ${handles.length === 4 ? 'grid-cols-2' : 'grid-cols-3'}`}
        onKeyDown={(event) => {
          const step = keyStep(event.key, event.shiftKey);
          if (!step || !chosen) return;
          event.preventDefault();
          nudge(step);
        }}
      >
        {handles.map((id) => (
          <button
            key={id}
            type="button"
            aria-pressed={chosen === id}
            className={`btn min-h-16 px-1 lg:min-h-12 ${chosen === id ? 'btn-primary' : ''}`}
            onClick={() => onChosen(id)}
          >
            {words[id].short}
          </button>
        ))}
      </div>
      <div className="flex flex-wrap items-center gap-1">
        {NUDGES.map(({ label, sign, by }) => (
          <button
            key={label}
            type="button"
            aria-label={`One pixel ${label}`}
            className="btn btn-square size-16 lg:size-12 text-lg"
            disabled={!chosen}
            onClick={() => nudge(by)}
          >
            {sign}
          </button>
        ))}
        <button type="button" className="btn h-16 lg:h-12" disabled={!undo} onClick={() => undo?.()}>
          Undo
        </button>
        <p className="text-quiet basis-full text-sm">
          {chosen ? `${words[chosen].short}: ${words[chosen].where}. ` : ''}
          <span className="max-lg:hidden">
            Drag a handle, or choose one and tap its place; arrow keys move it by a pixel, with Shift by ten.
          </span>
        </p>
      </div>
    </div>
  );
}
