import { zodResolver } from '@hookform/resolvers/zod';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { v7 as uuidv7 } from 'uuid';
import type { z } from 'zod';
import { addPersonSchema, type PersonView } from '@lauta/contract';
import { ROLES, type Role } from '@lauta/core/people';
import { signedIn } from '../../door/door.ts';
import { CommandNote } from '../../outbox/CommandNote.tsx';
import { OutboxPanel } from '../../outbox/OutboxPanel.tsx';
import { useCommand } from '../../outbox/useCommand.ts';
import { sendJson } from '../../door/ask.ts';
import { useInEvent } from '../../event/inEvent.ts';
import { Field } from '../../ui/Field.tsx';
import { Pager } from '../../ui/Pager.tsx';
import { Signal } from '../../ui/Signal.tsx';
import { useOnce } from '../../ui/useOnce.ts';
import { Empty, Failed, Loading } from '../../ui/states.tsx';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { roleName } from './SignInForm.tsx';
import { usePeople } from '../../session/who.ts';
import { hasFailed } from '../../ui/hasFailed.ts';
import type { EventId } from '@lauta/core/ids';

const PAGE_SIZE = 50;

/** Who takes part in the event, with which roles; the director adds people and gives them their invitation. */
export function PeoplePage() {
  const { event, place } = useInEvent();
  const people = usePeople(event.eventId);
  const [search, setSearch] = useState('');
  const [page, setPage] = useState(1);
  const isDirector = place.may('manage-people');
  const wanted = search.trim().toLowerCase();
  const shown = people.data?.filter(
    (one) =>
      wanted === '' || `${one.name} ${one.email} ${one.entrantNumber ?? ''}`.toLowerCase().includes(wanted),
  );
  return (
    <div className="max-w-4xl">
      <h1 className="mb-3">People</h1>
      <OutboxPanel />
      {isDirector && <AddPerson eventId={event.eventId} />}
      {hasFailed(people) && <Failed error={people.error} retry={() => void people.refetch()} />}
      {people.isPending && <Loading what="Fetching the people" />}
      {shown && (
        <>
          <div className="mt-6 mb-2 flex flex-wrap items-center justify-between gap-2">
            <input
              type="search"
              aria-label="Find a person"
              placeholder="name, address or number"
              className="input h-11 w-72"
              value={search}
              onChange={(e) => {
                setPage(1);
                setSearch(e.target.value);
              }}
            />
            <a className="linklike" href={`/api/events/${event.eventId}/people.csv`} download>
              CSV
            </a>
          </div>
          {shown.length === 0 && <Empty title="Nobody found" />}
          <ul className="ruled border-base-300 border-y">
            {shown.slice((page - 1) * PAGE_SIZE, page * PAGE_SIZE).map((person) => (
              <PersonLine
                key={person.accountId}
                person={person}
                eventId={event.eventId}
                mayInvite={isDirector}
              />
            ))}
          </ul>
          <Pager page={page} pageSize={PAGE_SIZE} total={shown.length} onPage={setPage} />
        </>
      )}
    </div>
  );
}

function PersonLine({
  person,
  eventId,
  mayInvite,
}: {
  person: PersonView;
  eventId: EventId;
  mayInvite: boolean;
}) {
  const [isOpen, setOpen] = useState(false);
  return (
    <li className="py-2">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <span>
          <b>{person.name || person.email}</b>{' '}
          {person.entrantNumber !== null && (
            <span className="num text-quiet">no. {person.entrantNumber}</span>
          )}
          {person.name && <span className="text-quiet block text-sm">{person.email}</span>}
        </span>
        <span className="flex flex-wrap items-center gap-x-4">
          {person.isSuspended && <Signal tone="fault">account closed</Signal>}
          {!person.isAccepted && <Signal tone="look">not taken up yet</Signal>}
          {person.roles.map(roleName).join(', ')}
          {mayInvite && !person.isAccepted && (
            <LinkMaker person={person} eventId={eventId} kind="invitation" />
          )}
          {mayInvite && (
            <button
              type="button"
              className="linklike min-h-11"
              aria-expanded={isOpen}
              onClick={() => setOpen(!isOpen)}
            >
              Change
            </button>
          )}
        </span>
      </div>
      {isOpen && <PersonChanges person={person} eventId={eventId} />}
    </li>
  );
}

const LINKS = {
  invitation: { action: 'Make an invitation', note: 'it works once, for two weeks' },
  renewal: { action: 'Let choose a new password', note: 'it works once, for a day' },
} as const;

/** Makes a link that the director hands to the person alone. */
function LinkMaker({
  person,
  eventId,
  kind,
}: {
  person: PersonView;
  eventId: EventId;
  kind: keyof typeof LINKS;
}) {
  const [link, setLink] = useState<string | null>(null);
  const { run, error } = useOnce();
  const make = async (): Promise<void> => {
    const path = `/api/events/${eventId}/people/${person.accountId}/${kind}`;
    const made = await signedIn(() => sendJson<{ path: string }>('POST', path, {}));
    setLink(new URL(made.path, location.origin).toString());
  };
  return (
    <>
      <button type="button" className="linklike min-h-11" onClick={() => void run(make)}>
        {LINKS[kind].action}
      </button>
      {link && (
        <span className="basis-full text-sm break-all">
          Give this link to {person.name || person.email} alone; {LINKS[kind].note}:{' '}
          <code className="select-all">{link}</code>
        </span>
      )}
      <ProblemNote error={error} />
    </>
  );
}

/** What a director takes away or gives back; why stands in the record. */
function PersonChanges({ person, eventId }: { person: PersonView; eventId: EventId }) {
  const client = useQueryClient();
  const [why, setWhy] = useState('');
  const { run, error, isBusy } = useOnce();
  const { accountId, roles, isInvitedHere, isSuspended, hasPassword } = person;
  const refresh = () => client.invalidateQueries({ queryKey: ['event', eventId] });
  const command = useCommand();
  const remove = (role: Role): Promise<void> =>
    command.send('people.remove', eventId, { accountId, roles: [role], why });
  const suspend = async (): Promise<void> => {
    const path = `/api/events/${eventId}/people/${accountId}/suspension`;
    await signedIn(() => sendJson('POST', path, { isSuspended: !isSuspended, why }));
    await refresh();
  };
  return (
    <div className="bg-base-200 mt-2 grid gap-2 p-3">
      <Field label="Why" hint="It stands in the record, to be opened by those who check it.">
        {(field) => (
          <input
            {...field}
            className="input h-12 w-full"
            maxLength={300}
            value={why}
            onChange={(e) => setWhy(e.target.value)}
          />
        )}
      </Field>
      <div className="flex flex-wrap items-center gap-x-6 gap-y-1">
        {roles.map((role) => (
          <button
            key={role}
            type="button"
            className="linklike min-h-11"
            disabled={command.isBusy}
            onClick={() => void remove(role)}
          >
            No longer {roleName(role)}
          </button>
        ))}
        {isInvitedHere && (
          <button
            type="button"
            className="linklike min-h-11"
            disabled={isBusy}
            onClick={() => void run(suspend)}
          >
            {isSuspended ? 'Open the account again' : 'Close the account'}
          </button>
        )}
        {isInvitedHere && hasPassword && <LinkMaker person={person} eventId={eventId} kind="renewal" />}
      </div>
      <CommandNote command={command} />
      <ProblemNote error={error} />
    </div>
  );
}

const formSchema = addPersonSchema.omit({ accountId: true });
type Form = z.infer<typeof formSchema>;
type Written = z.input<typeof formSchema>;

function AddPerson({ eventId }: { eventId: EventId }) {
  const command = useCommand();
  const form = useForm<Written, unknown, Form>({
    resolver: zodResolver(formSchema),
    defaultValues: { name: '', email: '', roles: ['angler'] },
  });
  const { errors, isSubmitting } = form.formState;
  const add = async (values: Form): Promise<void> => {
    await command.send('people.add', eventId, { accountId: uuidv7(), ...values }, () => form.reset());
  };
  return (
    <form
      className="border-base-300 grid gap-3 border-y py-4"
      noValidate
      onSubmit={(e) => void form.handleSubmit(add)(e)}
    >
      <div className="grid gap-3 sm:grid-cols-2">
        <Field label="Name" error={errors.name && 'Write the person’s name.'}>
          {(field) => (
            <input {...field} {...form.register('name')} className="input h-12 w-full" autoComplete="off" />
          )}
        </Field>
        <Field label="E-mail address" error={errors.email && 'Write a whole address.'}>
          {(field) => (
            <input
              {...field}
              {...form.register('email')}
              type="email"
              className="input h-12 w-full"
              autoComplete="off"
            />
          )}
        </Field>
      </div>
      <fieldset className="flex flex-wrap gap-x-6">
        <legend className="font-semibold">Roles</legend>
        {ROLES.map((role) => (
          <label key={role} className="flex min-h-11 items-center gap-2">
            <input type="checkbox" className="checkbox" value={role} {...form.register('roles')} />{' '}
            {roleName(role)}
          </label>
        ))}
        {errors.roles && <p className="text-error basis-full text-sm font-semibold">Choose a role.</p>}
      </fieldset>
      <CommandNote command={command} />
      <button type="submit" className="btn btn-primary h-12 justify-self-start" disabled={isSubmitting}>
        Add the person
      </button>
    </form>
  );
}
