import { zodResolver } from '@hookform/resolvers/zod';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useFieldArray, useForm } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import { createEventSchema } from '@lauta/contract';
import { CommandNote } from '../../outbox/CommandNote.tsx';
import { useCommand } from '../../outbox/useCommand.ts';
import { Field } from '../../ui/Field.tsx';
import { PlainFrame } from '../../ui/PlainFrame.tsx';
import type { EventId } from '@lauta/core/ids';

/** What the form asks; a session's date is its day's, and one that ends before it begins ends the morning after. */
const formSchema = z.object({
  name: createEventSchema.shape.name,
  zone: createEventSchema.shape.zone,
  isPublic: createEventSchema.shape.isPublic,
  days: z
    .array(
      z.object({
        date: z.iso.date('choose a date'),
        linesIn: z.string().regex(/^\d{2}:\d{2}$/, 'a time, as 06:00'),
        linesOut: z.string().regex(/^\d{2}:\d{2}$/, 'a time, as 15:00'),
      }),
    )
    .min(1),
});
type Form = z.infer<typeof formSchema>;

function toBody(eventId: EventId, { name, zone, isPublic, days }: Form): z.infer<typeof createEventSchema> {
  return {
    eventId,
    name,
    zone,
    isPublic,
    days: days.map(({ date, linesIn, linesOut }) => ({
      date,
      sessions: [
        {
          linesInLocal: `${date}T${linesIn}`,
          linesOutLocal: `${linesOut > linesIn ? date : dayAfter(date)}T${linesOut}`,
        },
      ],
    })),
  };
}

function dayAfter(date: string): string {
  return new Date(Date.parse(`${date}T00:00:00Z`) + 86_400_000).toISOString().slice(0, 10);
}

export function NewEventPage() {
  const navigate = useNavigate();
  const command = useCommand();
  const client = useQueryClient();
  const [eventId] = useState(() => uuidv7());
  const form = useForm<Form>({
    resolver: zodResolver(formSchema),
    defaultValues: {
      name: '',
      zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
      isPublic: true,
      days: [{ date: '', linesIn: '06:00', linesOut: '15:00' }],
    },
  });
  const days = useFieldArray({ control: form.control, name: 'days' });
  const { errors, isSubmitting } = form.formState;
  const create = async (values: Form): Promise<void> => {
    await command.send('event.create', eventId, toBody(eventId, values), async (outcome) => {
      if (outcome === 'waiting') return;
      await client.invalidateQueries();
      await navigate(`/events/${eventId}/rules`);
    });
  };
  return (
    <PlainFrame title="New event" wide>
      <form className="grid gap-4" noValidate onSubmit={(e) => void form.handleSubmit(create)(e)}>
        <Field label="Name" error={errors.name && 'Give it a name of at most 80 letters.'}>
          {(field) => <input {...field} {...form.register('name')} className="input h-12 w-full" />}
        </Field>
        <Field
          label="Time zone"
          hint="An IANA name. All times of the event are shown in it."
          error={errors.zone?.message}
        >
          {(field) => (
            <>
              <input {...field} {...form.register('zone')} list="zones" className="input h-12 w-full" />
              <datalist id="zones">
                {Intl.supportedValuesOf('timeZone').map((zone) => (
                  <option key={zone} value={zone} />
                ))}
              </datalist>
            </>
          )}
        </Field>
        <label className="flex min-h-11 items-center gap-2">
          <input type="checkbox" className="checkbox" {...form.register('isPublic')} /> anyone may watch the
          standings
        </label>
        <fieldset className="grid gap-2">
          <legend className="font-semibold">Days</legend>
          {days.fields.map((day, i) => (
            <div
              key={day.id}
              className="grid grid-cols-2 items-start gap-2 sm:grid-cols-[1fr_8rem_8rem_auto]"
            >
              <Field label={`Day ${i + 1}`} error={errors.days?.[i]?.date?.message}>
                {(field) => (
                  <input
                    {...field}
                    {...form.register(`days.${i}.date`)}
                    type="date"
                    className="input h-12 w-full"
                  />
                )}
              </Field>
              <Field label="Lines in" error={errors.days?.[i]?.linesIn?.message}>
                {(field) => (
                  <input
                    {...field}
                    {...form.register(`days.${i}.linesIn`)}
                    type="time"
                    className="input h-12 w-full"
                  />
                )}
              </Field>
              <Field label="Lines out" error={errors.days?.[i]?.linesOut?.message}>
                {(field) => (
                  <input
                    {...field}
                    {...form.register(`days.${i}.linesOut`)}
                    type="time"
                    className="input h-12 w-full"
                  />
                )}
              </Field>
              <button
                type="button"
                className="btn mt-7 h-12"
                disabled={days.fields.length === 1}
                onClick={() => days.remove(i)}
              >
                Remove
              </button>
            </div>
          ))}
          <button
            type="button"
            className="btn justify-self-start"
            onClick={() => {
              const last = form.getValues('days').at(-1);
              days.append({
                date: last?.date ? dayAfter(last.date) : '',
                linesIn: last?.linesIn ?? '06:00',
                linesOut: last?.linesOut ?? '15:00',
              });
            }}
          >
            Another day
          </button>
        </fieldset>
        <CommandNote command={command} />
        <button type="submit" className="btn btn-primary h-14" disabled={isSubmitting || command.isWaiting}>
          Create the event
        </button>
      </form>
    </PlainFrame>
  );
}
