import { claimMarks, type CatchMark } from '@lauta/core/catch';
import { findSpecies, type LengthSheet } from '@lauta/core/rules';
import { placeInSchedule } from '@lauta/core/schedule';
import { formatSteps } from '@lauta/core/units';
import { clockTime } from '@lauta/words/clock';
import { Signal } from '../../ui/Signal.tsx';
import { useInEvent } from '../../event/inEvent.ts';
import { sessionTimes } from '../../event/dayOfNow.ts';
import type { CatchDraft } from './draft.ts';

const NOTE_WORDS: Partial<Record<CatchMark, string>> = {
  'before-lines-in': 'Caught before lines-in: the claim is kept and marked.',
  'after-lines-out': 'Caught after lines-out: the claim is kept and marked.',
  'species-not-listed': 'This kind is not in the rule sheet: the claim is kept and marked.',
  'board-not-approved': 'This board is not approved: the claim is kept and marked.',
  'taken-outside': 'Taken outside of this page: the file is kept as it is, and the claim is marked so.',
  'no-person-picture':
    'The rules want a picture of you with the fish: before it goes, “With you” on the camera.',
};

/** When it was caught, and what of that the judge will find marked. */
export function CaptureNote({
  draft,
  sheet,
  at,
  source,
  claimedSteps,
  hasPortrait,
}: {
  draft: CatchDraft;
  sheet: LengthSheet;
  at: string;
  source: 'photograph' | 'device';
  claimedSteps: number | null;
  hasPortrait: boolean;
}) {
  const { event } = useInEvent();
  const place = placeInSchedule(sessionTimes(event), Date.parse(at));
  const species = findSpecies(sheet, draft.speciesId);
  const marks = claimMarks({
    sheet,
    when: place.kind === 'no-sessions' ? 'no-session' : place.kind,
    speciesId: draft.speciesId,
    claimedSteps,
    reading: { kind: 'board', boardId: draft.boardId, apparentMm: null, sigmaMm: null },
    isFromOutside: draft.isFromOutside,
    hasPersonPicture: hasPortrait,
    capturedAtMs: Date.parse(at),
    heardAtMs: null,
  });
  const notes: string[] = marks.flatMap((mark) => NOTE_WORDS[mark] ?? []);
  if (species && !species.counts) notes.push(`${species.name} does not count in this event.`);
  else if (
    species &&
    species.minimumSteps !== null &&
    claimedSteps !== null &&
    claimedSteps < species.minimumSteps
  ) {
    notes.push(`Under the minimum of ${formatSteps(species.minimumSteps, sheet.measure.step)}.`);
  }
  return (
    <div className="lg:col-span-2">
      <p className="text-quiet">
        Caught at <b className="num text-base-content">{clockTime(at, event.zone, true)}</b>,{' '}
        {source === 'photograph'
          ? 'by the photograph’s own time.'
          : 'by this device’s clock: the file tells no time.'}
      </p>
      {notes.map((note) => (
        <p key={note}>
          <Signal tone="look">{note}</Signal>
        </p>
      ))}
    </div>
  );
}
