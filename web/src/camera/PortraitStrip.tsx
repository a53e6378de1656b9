import { useObjectUrl } from '../ui/useObjectUrl.ts';
import type { PortraitLook } from '@lauta/vision/portrait';
import { Signal } from '../ui/Signal.tsx';
import { usePortraitLooks } from './usePortrait.ts';
import { PORTRAIT_WORDS } from './words.ts';
import type { Frame } from './frames.ts';
import type { FileId } from '@lauta/core/ids';

/** Pictures of the person with the fish; the one that is pressed goes with the claim. */
export function PortraitStrip({
  frames,
  chosenId,
  choose,
}: {
  frames: readonly Frame[];
  chosenId: string | null;
  choose: (frameId: FileId | null) => void;
}) {
  const looks = usePortraitLooks(frames);
  return (
    <section aria-label="With you" className="grid gap-1">
      <p>With you: {chosenId === null ? 'none goes with the claim' : 'one goes with the claim'}</p>
      <ol className="flex gap-2 overflow-x-auto pb-1">
        {frames.map((frame, i) => (
          <li key={frame.frameId}>
            <Portrait
              frame={frame}
              number={i + 1}
              look={looks.get(frame.frameId) ?? null}
              isChosen={frame.frameId === chosenId}
              choose={() => choose(frame.frameId === chosenId ? null : frame.frameId)}
            />
          </li>
        ))}
      </ol>
    </section>
  );
}

function Portrait({
  frame,
  number,
  look,
  isChosen,
  choose,
}: {
  frame: Frame;
  number: number;
  look: PortraitLook | null;
  isChosen: boolean;
  choose: () => void;
}) {
  const src = useObjectUrl(frame.photo);
  return (
    <div className="grid w-36 gap-1">
      <button
        type="button"
        aria-pressed={isChosen}
        aria-label={`Picture ${number} with you`}
        className={`block cursor-pointer border-2 p-1 ${isChosen ? 'border-primary' : 'border-base-300'}`}
        onClick={choose}
      >
        {src && <img src={src} alt="" className="h-24 w-full object-cover" />}
      </button>
      {look?.findings.map(({ hint }) => (
        <p key={hint} className="text-sm leading-tight">
          <Signal tone="look">{PORTRAIT_WORDS[hint]}</Signal>
        </p>
      ))}
    </div>
  );
}
