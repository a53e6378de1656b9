import { useNavigate } from 'react-router';
import type { RuleSheet } from '@lauta/core/rules';
import { eventPath, useInEvent } from '../../event/inEvent.ts';
import { Empty, Failed, Loading } from '../../ui/states.tsx';
import { useRules } from '../../queries/event.ts';
import { outbox, useOutbox } from '../../outbox/outbox.ts';
import { Signal } from '../../ui/Signal.tsx';
import { OutboxPanel } from '../../outbox/OutboxPanel.tsx';
import { RuleForm } from './RuleForm.tsx';
import { hasFailed } from '../../ui/hasFailed.ts';
import type { CommandId, EventId } from '@lauta/core/ids';

/** Where a first sheet begins: the trade's common values, to be changed. */
const FIRST_SHEET: RuleSheet = {
  schemaVersion: 1,
  title: 'Rule sheet',
  measure: { kind: 'length', step: 'quarter-inch', rounding: 'down' },
  bagLimit: 5,
  bagPeriod: 'event',
  species: [{ id: 'largemouth-bass', name: 'Largemouth bass', minimumSteps: null, counts: true }],
  boards: ['birch-30in'],
  penalties: [
    { infraction: 'mouth-open', penalty: { kind: 'deduction', steps: 1 } },
    { infraction: 'identifier-missing', penalty: { kind: 'disqualification' } },
  ],
  tieBreaks: ['biggest-fish', 'next-biggest', 'earliest-completion'],
};

/** A sheet that waited here and was refused once it arrived: what was typed must not be typed again. */
function useRefusedSheet(eventId: EventId): { commandId: CommandId; sheet: RuleSheet } | null {
  const { entries } = useOutbox();
  for (const { command, refused } of entries.toReversed())
    if (refused && command.kind === 'rules.publish' && command.eventId === eventId)
      return { commandId: command.commandId, sheet: command.body.sheet };
  return null;
}

/** The director publishes the next version of the rule sheet. */
export function RulesPage() {
  const { event, place } = useInEvent();
  const rules = useRules(event.eventId);
  const navigate = useNavigate();
  const refused = useRefusedSheet(event.eventId);
  if (hasFailed(rules)) return <Failed error={rules.error} retry={() => void rules.refetch()} />;
  if (rules.isPending) return <Loading what="Fetching the rules" />;
  if (!place.may('publish-rules')) return <Empty title="Only the director publishes rules" />;
  const current = rules.data.at(-1);
  const done = (): void => {
    if (refused) void outbox.drop(refused.commandId);
    void navigate(eventPath(event.eventId));
  };
  return (
    <div className="max-w-3xl">
      <h1>Rule sheet, version {(current?.version ?? 0) + 1}</h1>
      <p className="text-quiet mb-4">
        A published sheet never changes. A new version holds for fish caught after it is published; earlier
        ones are judged by the version in force when they were caught.
      </p>
      <OutboxPanel />
      {refused && (
        <p role="status">
          <Signal tone="look">begun with the sheet that was refused</Signal> Look at what stands now before
          you publish it.
        </p>
      )}
      <RuleForm
        eventId={event.eventId}
        key={refused?.commandId ?? 'current'}
        initial={refused?.sheet ?? current?.sheet ?? FIRST_SHEET}
        version={current?.version ?? null}
        onPublished={done}
      />
    </div>
  );
}
