import { frameMerit } from '@lauta/vision';
import { Signal } from '../ui/Signal.tsx';
import type { Tone } from '@lauta/words/tone';
import { useObjectUrl } from '../ui/useObjectUrl.ts';
import { INFRACTION_WORDS } from '@lauta/words/catch';
import { CHECK_WORDS } from '../bench/words.ts';
import type { Proposal, ReadFrame } from './useFrameAnalyses.ts';

/** All frames of the fish that is on, the best first; a tap takes another one for the claim. */
export function FrameStrip({
  proposal: { ranked, readCount, best },
  chosenId,
  choose,
  clear,
}: {
  proposal: Proposal;
  chosenId: string | null;
  choose: (frame: ReadFrame) => void;
  clear: () => void;
}) {
  const isReading = readCount < ranked.length;
  return (
    <section aria-label="Frames" className="grid gap-1">
      <div className="flex items-baseline justify-between gap-3">
        <p role="status">
          {isReading ? `Read ${readCount} of ${ranked.length} frames` : `${ranked.length} frames`}
          {best && chosenId !== null && best.frame.frameId !== chosenId && ', another is better'}
        </p>
        <button type="button" className="linklike min-h-16 lg:min-h-11" onClick={clear}>
          Throw all away
        </button>
      </div>
      <ol className="flex gap-2 overflow-x-auto pb-1">
        {ranked.map((one, i) => (
          <li key={one.frame.frameId} className="flex-none">
            <Thumb
              one={one}
              isBest={i === 0 && best !== null}
              isChosen={one.frame.frameId === chosenId}
              choose={() => choose(one)}
            />
          </li>
        ))}
      </ol>
    </section>
  );
}

function Thumb({
  one,
  isBest,
  isChosen,
  choose,
}: {
  one: ReadFrame;
  isBest: boolean;
  isChosen: boolean;
  choose: () => void;
}) {
  const src = useObjectUrl(one.frame.photo);
  const { tone, words } = frameWords(one);
  return (
    <button
      type="button"
      aria-pressed={isChosen}
      className={`grid w-32 cursor-pointer gap-0.5 border-2 p-1 text-left text-sm ${isChosen ? 'border-primary' : 'border-base-300'}`}
      onClick={choose}
    >
      {src && <img src={src} alt="" className="h-20 w-full object-cover" />}
      {isBest && <b>the best</b>}
      {tone ? <Signal tone={tone}>{words}</Signal> : <span className="text-quiet">{words}</span>}
    </button>
  );
}

/** What speaks against a frame, in a few words. */
export function frameWords({ analysis, hasFailed }: ReadFrame): { tone: Tone | null; words: string } {
  if (hasFailed) return { tone: 'fault', words: 'not readable' };
  if (!analysis) return { tone: null, words: 'waits' };
  const { hasLength, faults, looks } = frameMerit(analysis);
  const [fault] = faults;
  if (fault) return { tone: 'fault', words: `${INFRACTION_WORDS[fault]}${more(faults.length)}` };
  if (!hasLength) return { tone: 'fault', words: 'no length' };
  const [look] = looks;
  if (look) return { tone: 'look', words: `${CHECK_WORDS[look]}?${more(looks.length)}` };
  return { tone: 'clear', words: 'nothing wrong' };
}

function more(count: number): string {
  return count > 1 ? `, ${count - 1} more` : '';
}
