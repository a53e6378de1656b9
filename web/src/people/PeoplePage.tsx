import { zodResolver } from '@hookform/resolvers/zod';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { v7 as uuidv7 } from 'uuid';
import type { z } from 'zod';
import { addPersonSchema, type PersonView } from '@lauta/contract';
import { ROLES } from '@lauta/core/people';
import { sendCommand, signedIn } from '../door/door.ts';
import { sendJson } from '../door/http.ts';
import { useInEvent } from '../frame/inEvent.ts';
import { Field } from '../frame/Field.tsx';
import { Pager } from '../frame/Pager.tsx';
import { Empty, Failed, Loading } from '../frame/states.tsx';
import { ProblemNote } from '../problem/ProblemNote.tsx';
import { roleName } from './SignInForm.tsx';
import { usePeople } from './queries.ts';
import { hasFailed } from '../frame/hasFailed.ts';

const PAGE_SIZE = 50;

/** Who takes part in the event, with which roles; the director adds people and gives them their invitation. */
export function PeoplePage() {
  const { event, place } = useInEvent();
  const people = usePeople(event.eventId);
  const [search, setSearch] = useState('');
  const [page, setPage] = useState(1);
  const isDirector = place.roles.includes('director');
  const wanted = search.trim().toLowerCase();
  const shown = people.data?.filter(
    (one) =>
      wanted === '' || `${one.name} ${one.email} ${one.entrantNumber ?? ''}`.toLowerCase().includes(wanted),
  );
  return (
    <div className="max-w-4xl">
      <h1 className="mb-3">People</h1>
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
  eventId: string;
  mayInvite: boolean;
}) {
  const [link, setLink] = useState<string | null>(null);
  const [error, setError] = useState<unknown>(null);
  const invite = async (): Promise<void> => {
    setError(null);
    try {
      const path = `/api/events/${eventId}/people/${person.accountId}/invitation`;
      const made = await signedIn(() => sendJson<{ path: string }>('POST', path, {}));
      setLink(new URL(made.path, location.origin).toString());
    } catch (problem) {
      setError(problem);
    }
  };
  return (
    <li className="py-2">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <span>
          <b>{person.name}</b>{' '}
          {person.entrantNumber !== null && (
            <span className="num text-quiet">no. {person.entrantNumber}</span>
          )}
          <span className="text-quiet block text-sm">{person.email}</span>
        </span>
        <span className="flex items-center gap-4">
          {person.roles.map(roleName).join(', ')}
          {mayInvite && !person.hasPassword && (
            <button type="button" className="linklike min-h-11" onClick={() => void invite()}>
              Make an invitation
            </button>
          )}
        </span>
      </div>
      {link && (
        <p className="mt-1 text-sm break-all">
          Give this link to {person.name} alone; it works once, for two weeks:{' '}
          <code className="select-all">{link}</code>
        </p>
      )}
      <ProblemNote error={error} />
    </li>
  );
}

const formSchema = addPersonSchema.omit({ accountId: true });
type Form = z.infer<typeof formSchema>;

function AddPerson({ eventId }: { eventId: string }) {
  const client = useQueryClient();
  const [error, setError] = useState<unknown>(null);
  const form = useForm<Form>({
    resolver: zodResolver(formSchema),
    defaultValues: { name: '', email: '', roles: ['angler'] },
  });
  const { errors, isSubmitting } = form.formState;
  const add = async (values: Form): Promise<void> => {
    setError(null);
    try {
      await sendCommand('people.add', eventId, { accountId: uuidv7(), ...values });
      form.reset();
      await client.invalidateQueries({ queryKey: ['event', eventId] });
    } catch (problem) {
      setError(problem);
    }
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
      <ProblemNote error={error} />
      <button type="submit" className="btn btn-primary h-12 justify-self-start" disabled={isSubmitting}>
        Add the person
      </button>
    </form>
  );
}
