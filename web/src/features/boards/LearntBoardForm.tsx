import { zodResolver } from '@hookform/resolvers/zod';
import { useEffect, useRef } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { z } from 'zod';
import { boardSchema } from '@lauta/contract';
import { isSameKind, type Learning, type MeasuringBoard } from '@lauta/vision';
import { Field } from '../../ui/Field.tsx';
import { Signal } from '../../ui/Signal.tsx';
import { eventPath, useInEvent } from '../../event/inEvent.ts';
import { CommandNote } from '../../outbox/CommandNote.tsx';
import { useCommand } from '../../outbox/useCommand.ts';
import { BoardDrawing } from './BoardDrawing.tsx';
import { useBoards } from '../../queries/boards.ts';
import { keyOf, rulingWords } from '@lauta/words/boards';

const HIGHEST_MM = 300;
const height = z
  .string()
  .refine(
    (typed) => typed.trim() !== '' && Number(typed) >= 0 && Number(typed) <= HIGHEST_MM,
    `A height from 0 to ${HIGHEST_MM} mm.`,
  );
const formSchema = z.object({
  name: z.string().refine((typed) => keyOf(typed) !== '', 'Give it a name with letters or figures.'),
  stopMm: height,
  wallMm: height,
});
type Form = z.infer<typeof formSchema>;

/** What was read, what it rests on, and the few things that a photograph cannot tell. */
export function LearntBoardForm({ learnt }: { learnt: Learning }) {
  const { event } = useInEvent();
  const boards = useBoards(event.eventId);
  const navigate = useNavigate();
  const command = useCommand();
  const { control, register, handleSubmit, formState } = useForm<Form>({
    resolver: zodResolver(formSchema),
    defaultValues: {
      name: '',
      stopMm: String(learnt.board.stop.heightMm),
      wallMm: String(learnt.board.wall?.heightMm ?? 0),
    },
  });
  const { errors } = formState;
  const { name, stopMm, wallMm } = useWatch({ control });
  const heading = useRef<HTMLHeadingElement>(null);
  // It comes in below what was worked on.
  useEffect(() => {
    void heading.current?.scrollIntoView({ block: 'start' });
  }, []);
  const { wall } = learnt.board;
  const board: MeasuringBoard = {
    ...learnt.board,
    id: keyOf(name ?? '') || 'board',
    name: name?.trim() || 'new kind',
    stop: { ...learnt.board.stop, heightMm: Number(stopMm) },
    wall: wall && { ...wall, heightMm: Number(wallMm) },
  };
  const twin = boards.all.find((one) => isSameKind(one, board));
  const add = (): Promise<void> =>
    command.send('board.add', event.eventId, { board: boardSchema.parse(board) }, () =>
      navigate(eventPath(event.eventId, 'boards')),
    );
  return (
    <section aria-labelledby="learnt" className="grid gap-3 lg:col-span-2">
      <h2 id="learnt" ref={heading}>
        What was read
      </h2>
      <BoardDrawing board={board} />
      <p role="status">{rulingWords(board)}</p>
      <Evidence learnt={learnt} twin={twin?.name ?? null} />
      <form
        noValidate
        className="grid gap-3 sm:grid-cols-[minmax(0,2fr)_1fr_1fr] sm:items-start"
        onSubmit={(e) => void handleSubmit(add)(e)}
      >
        <Field
          label="What it is called"
          hint={name ? `Its key is ${board.id}.` : undefined}
          error={errors.name?.message}
        >
          {(field) => <input {...field} {...register('name')} className="input h-12 w-full" maxLength={80} />}
        </Field>
        <Field
          label="Height of the stop, mm"
          hint="Guessed; better by a ruler."
          error={errors.stopMm?.message}
        >
          {(field) => (
            <input {...field} inputMode="decimal" className="input num h-12 w-full" {...register('stopMm')} />
          )}
        </Field>
        {learnt.board.wall && (
          <Field
            label="Height of the wall, mm"
            hint="Guessed; better by a ruler."
            error={errors.wallMm?.message}
          >
            {(field) => (
              <input
                {...field}
                inputMode="decimal"
                className="input num h-12 w-full"
                {...register('wallMm')}
              />
            )}
          </Field>
        )}
        <div className="grid gap-2 sm:col-span-full">
          <CommandNote command={command} />
          <button type="submit" className="btn btn-primary h-14 justify-self-start">
            Add it to this event
          </button>
          <p className="text-quiet text-sm">
            It counts once a rule sheet approves it. Until then claims on it are marked for the judge.
          </p>
        </div>
      </form>
    </section>
  );
}

/** What the profile rests on. */
function Evidence({ learnt, twin }: { learnt: Learning; twin: string | null }) {
  return (
    <ul className="grid gap-0.5">
      <li>
        <Signal tone={learnt.seenShare > 0.85 ? 'clear' : 'look'}>
          {Math.round(100 * learnt.seenShare)} % of these lines are seen in their places
        </Signal>
      </li>
      <li>
        <Signal tone={learnt.isFoundAgain ? 'clear' : 'look'}>
          {learnt.isFoundAgain
            ? 'told only this, the bench finds the board in the photograph by itself'
            : 'told only this, the bench does not find the board by itself: take another photograph'}
        </Signal>
      </li>
      {twin && (
        <li>
          <Signal tone="look">the same lines as the {twin}: the two could not be told from each other</Signal>
        </li>
      )}
    </ul>
  );
}
