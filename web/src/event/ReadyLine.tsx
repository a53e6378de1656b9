import { Link } from 'react-router';
import { prepareList, readinessOf } from '@lauta/core/planning';
import { useNow } from '../clock/appClock.ts';
import { Signal } from '../ui/Signal.tsx';
import { eventPath, useInEvent } from './inEvent.ts';
import { useRules } from '../queries/event.ts';
import { dayOfNow } from './dayOfNow.ts';
import { usePreparedness } from '../device/preparedness.ts';

/** How ready this device's person is for the day, on the event's overview. */
export function ReadyLine() {
  const { event } = useInEvent();
  const now = useNow(60_000);
  const rules = useRules(event.eventId);
  const day = dayOfNow(event, now.getTime()) ?? event.days[0];
  const { prepared } = usePreparedness(event.eventId, day?.dayId ?? '');
  const list = prepareList(rules.data?.at(-1)?.sheet.measure.kind ?? 'length', prepared.craft);
  const { done, of, isReady, failed } = readinessOf(list, new Set(prepared.ticked), prepared.checks);
  return (
    <p className="flex flex-wrap items-baseline gap-x-4">
      <Signal tone={isReady ? 'clear' : failed.length > 0 ? 'fault' : 'look'}>
        {isReady ? 'ready for the water' : `${done} of ${of} things ready for day ${day?.seq ?? 1}`}
      </Signal>
      <Link className="linklike inline-flex min-h-11 items-center" to={eventPath(event.eventId, 'prepare')}>
        Prepare
      </Link>
    </p>
  );
}
