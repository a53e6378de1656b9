import type { CatchView } from '@lauta/contract';
import { ClipVideo } from '../clip/ClipPlayer.tsx';

const ROLE_WORDS = { board: 'on the board', fish: 'the fish', person: 'with the angler' } as const;

/** What was sent beside the photograph that was measured; for those who may see it. */
export function OtherPhotographs({ caught }: { caught: CatchView }) {
  if (!caught.mayJudge && !caught.isOwn) return null;
  const { photographId: measured, reading } = caught.measurement;
  const others = caught.photographs.filter(
    ({ photographId }) =>
      photographId !== measured &&
      !(reading.kind === 'tape' && reading.marks.some((mark) => mark.photographId === photographId)),
  );
  if (others.length === 0 && !caught.clip) return null;
  return (
    <section aria-label="Other photographs">
      <ul className="flex flex-wrap gap-3">
        {others.map(({ photographId, role }) => (
          <li key={photographId}>
            <a href={`/api/photographs/${photographId}/screen`} target="_blank" rel="noreferrer">
              <img
                src={`/api/photographs/${photographId}/thumb`}
                alt={ROLE_WORDS[role]}
                className="border-base-300 h-24 border object-cover"
              />
            </a>
            <p className="text-quiet text-sm">{ROLE_WORDS[role]}</p>
          </li>
        ))}
        {caught.clip && (
          <li className="max-w-xs">
            <ClipVideo src={`/api/photographs/${caught.clip.clipId}/original`} />
            <p className="text-quiet text-sm">clip of the release</p>
          </li>
        )}
      </ul>
    </section>
  );
}
