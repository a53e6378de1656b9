import type { ReactNode } from 'react';
import { useParams } from 'react-router';
import type { CatchView } from '@lauta/contract';
import { isLengthSheet, type LengthSheet } from '@lauta/core/rules';
import { useInEvent } from '../event/inEvent.ts';
import { Empty, Failed, Loading } from '../ui/states.tsx';
import { useRules } from '../queries/event.ts';
import { useCatch } from '../queries/catches.ts';
import { hasFailed } from '../ui/hasFailed.ts';

/** The catch that the path names, with the rule sheet that was in force when it was caught. */
export function WithCatch({ children }: { children: (caught: CatchView, sheet: LengthSheet) => ReactNode }) {
  const { event } = useInEvent();
  const { catchId = '' } = useParams();
  const caught = useCatch(event.eventId, catchId);
  const rules = useRules(event.eventId);
  if (hasFailed(caught)) return <Failed error={caught.error} retry={() => void caught.refetch()} />;
  if (hasFailed(rules)) return <Failed error={rules.error} retry={() => void rules.refetch()} />;
  if (caught.isPending || rules.isPending) return <Loading what="Fetching the catch" />;
  const sheet = rules.data.find((one) => one.version === caught.data.ruleVersion)?.sheet;
  // The sheets on the page are older than the catch: they are asked for again.
  if (!sheet) return <Failed error={new Error('no sheet')} retry={() => void rules.refetch()} />;
  if (!isLengthSheet(sheet))
    return (
      <Empty title="Weight counts in this event">
        Fish are weighed here, not judged by their photographs.
      </Empty>
    );
  return children(caught.data, sheet);
}
