import { useMemo } from 'react';
import { Link } from 'react-router';
import { parsePayload } from '@lauta/core/identifier';
import { isLengthSheet } from '@lauta/core/rules';
import { useNow } from '../../clock/appClock.ts';
import { dayOfNow } from '../../event/dayOfNow.ts';
import { eventPath, useInEvent } from '../../event/inEvent.ts';
import { useRunningCatch } from '../../fish-clock/useRunningCatch.ts';
import { useBoards, useStoredBoards } from '../../queries/boards.ts';
import { useIdentifiers, useRules } from '../../queries/event.ts';
import { hasFailed } from '../../ui/hasFailed.ts';
import { Empty, Failed, Loading } from '../../ui/states.tsx';
import { recallChoices } from './choices.ts';
import { useDraft } from './draft.ts';
import { WaterStages } from './WaterStages.tsx';

function WeightCounts() {
  const { event } = useInEvent();
  return (
    <Empty title="Weight counts in this event">
      Fish are kept in the well and weighed; nothing is claimed by photograph.{' '}
      <Link className="linklike" to={eventPath(event.eventId, 'well')}>
        To the well
      </Link>
    </Empty>
  );
}

/** On the water: the fish that is on, its photographs and its claim; closed to whom or while it cannot be that. */
export function WaterPage() {
  const { event, place } = useInEvent();
  const { eventId } = event;
  const rules = useRules(eventId);
  const stored = useStoredBoards(eventId);
  const boards = useBoards(eventId);
  const identifiers = useIdentifiers(eventId, place.entrantId);
  const { draft, put, change } = useDraft(eventId);
  const fish = useRunningCatch(eventId);
  const now = useNow(60_000);
  const today = dayOfNow(event, now.getTime());
  const payload = identifiers.data?.find((one) => one.dayId === today?.dayId)?.payload ?? null;
  const card = useMemo(() => (payload === null ? null : parsePayload(payload)), [payload]);
  const current = rules.data?.at(-1)?.sheet ?? null;
  const sheet = current && isLengthSheet(current) ? current : null;
  const choices = useMemo(() => sheet && recallChoices(sheet), [sheet]);

  if (hasFailed(rules)) return <Failed error={rules.error} retry={() => void rules.refetch()} />;
  if (hasFailed(stored)) return <Failed error={stored.error} retry={() => void stored.refetch()} />;
  if (rules.isPending || stored.isPending || draft === undefined || !fish.isKnown)
    return <Loading what="Loading the board" />;
  if (!place.entrantId) {
    return (
      <Empty title="Only entrants claim catches">Sign in as an angler of this event to claim a catch.</Empty>
    );
  }
  if (current && !sheet) return <WeightCounts />;
  if (!sheet || !choices) {
    return (
      <Empty title="No rule sheet yet">The director publishes it; until then a fish can’t be claimed.</Empty>
    );
  }
  // The bench compares the card in the picture with this one: it waits for it.
  if (identifiers.isPending) return <Loading what="Fetching the card of the day" />;
  return (
    <WaterStages
      event={event}
      entrantId={place.entrantId}
      sheet={sheet}
      choices={choices}
      board={boards.find(choices.boardId)}
      boards={boards}
      card={card}
      draft={draft}
      kept={{ put, change }}
      fish={fish}
    />
  );
}
