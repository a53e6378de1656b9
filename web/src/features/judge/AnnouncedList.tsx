import type { RuleSheet } from '@lauta/core/rules';
import { formatSteps } from '@lauta/core/units';
import { dayAndTime } from '@lauta/words/clock';
import { useInEvent } from '../../event/inEvent.ts';
import { speciesName } from '@lauta/words/catch';
import { sizeWords } from '../../outbox/words.ts';
import { useAnnounced } from '../../queries/custody.ts';

/** Catches that were announced and whose photographs are on their way; nothing when there are none. */
export function AnnouncedList({ sheet }: { sheet: RuleSheet }) {
  const { event } = useInEvent();
  const announced = useAnnounced(event.eventId);
  if (!announced.data || announced.data.length === 0) return null;
  return (
    <section aria-labelledby="announced" className="mt-6">
      <h2 id="announced">On their way</h2>
      <p className="text-quiet">The server has heard of them; their photographs have not come yet.</p>
      <ul className="ruled border-base-300 mt-1 border-y">
        {announced.data.map(({ catchId, entrant, speciesId, capturedAt, claimedSteps, heardAt, bytes }) => (
          <li key={catchId} className="flex flex-wrap items-baseline gap-x-4 py-2">
            <b className="num w-16">{formatSteps(claimedSteps, sheet.measure.step)}</b>
            <b>{entrant.name}</b>
            <span className="text-quiet">
              {speciesName(sheet, speciesId)}, {dayAndTime(capturedAt, event.zone)}; heard of{' '}
              {dayAndTime(heardAt, event.zone)}, {sizeWords(bytes)} to come
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
