import type { MeasuringBoard } from '@lauta/vision';
import type { LengthSheet } from '@lauta/core/rules';
import { LENGTH_STEPS, formatSteps, type LengthStepId } from '@lauta/core/units';
import { Field } from '../../ui/Field.tsx';
import { speciesName } from '@lauta/words/catch';
import type { CatchDraft } from './draft.ts';
import { Pick, Picks } from '../../ui/Picks.tsx';
import { WeightNote } from './WeightNote.tsx';
import type { BoardId } from '@lauta/core/ids';

interface Props {
  draft: CatchDraft;
  sheet: LengthSheet;
  boards: readonly MeasuringBoard[];
  code: string | null;
  /** Steps that the reading gives, and those that are claimed. */
  reached: number | null;
  claimedSteps: number | null;
  /** As read, mm. */
  lengthMm: number | null;
  /** What was guessed while it pulled. */
  guessedMassG: number | null;
  change: (part: Partial<CatchDraft>) => void;
  chooseBoard: (boardId: BoardId) => void;
}

/** More kinds than these are looked up faster in a list. */
const MOST_BUTTONS = 8;

/** What a claim says beside its photograph: kind, board, the card's code, and the length in steps. */
export function ClaimFields({
  draft,
  sheet,
  boards,
  code,
  reached,
  claimedSteps,
  lengthMm,
  guessedMassG,
  change,
  chooseBoard,
}: Props) {
  return (
    <div className="grid gap-3 sm:grid-cols-2 lg:col-span-2 lg:grid-cols-3">
      <div className="sm:col-span-2 lg:col-span-3">
        <SpeciesChoice draft={draft} sheet={sheet} change={change} />
      </div>
      <Field label="Board">
        {(field) => (
          <select
            {...field}
            className="select h-16 lg:h-12 w-full"
            value={draft.boardId}
            onChange={(e) => chooseBoard(e.target.value)}
          >
            {boards.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
                {sheet.boards.includes(one.id) ? '' : ' (not approved)'}
              </option>
            ))}
          </select>
        )}
      </Field>
      <Field label="Code on the card" hint={code ? `Yours today: ${code}` : 'None is issued for today.'}>
        {(field) => (
          <input
            {...field}
            className="input num h-16 lg:h-12 w-full uppercase"
            maxLength={12}
            autoCapitalize="characters"
            autoComplete="off"
            value={draft.identifierCode ?? code ?? ''}
            onChange={(e) => change({ identifierCode: e.target.value.toUpperCase() })}
          />
        )}
      </Field>
      <div className="grid content-start gap-1">
        <ClaimedSteps
          claimedSteps={claimedSteps}
          isOwn={draft.claimedSteps !== null && draft.claimedSteps !== reached}
          step={sheet.measure.step}
          onSteps={(steps) => change({ claimedSteps: steps })}
        />
        {lengthMm !== null && (
          <WeightNote
            speciesName={speciesName(sheet, draft.speciesId)}
            lengthMm={lengthMm}
            guessedMassG={guessedMassG}
            unit={LENGTH_STEPS[sheet.measure.step].unit}
          />
        )}
        {draft.claimedSteps !== null && reached !== null && draft.claimedSteps > reached && (
          <p className="text-warning text-sm font-semibold">More than is read: the judge will see both.</p>
        )}
      </div>
    </div>
  );
}

function SpeciesChoice({ draft, sheet, change }: Pick<Props, 'draft' | 'sheet' | 'change'>) {
  const kinds = [...sheet.species, { id: 'other', name: 'Another kind' }];
  return sheet.species.length > MOST_BUTTONS ? (
    <Field label="Species">
      {(field) => (
        <select
          {...field}
          className="select h-16 w-full"
          value={draft.speciesId}
          onChange={(e) => change({ speciesId: e.target.value })}
        >
          {kinds.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      )}
    </Field>
  ) : (
    <Picks label="Species">
      {kinds.map(({ id, name }) => (
        <Pick key={id} isOn={id === draft.speciesId} onPick={() => change({ speciesId: id })}>
          {name}
        </Pick>
      ))}
    </Picks>
  );
}

/** The length that is claimed: as read, or a step more or less by hand. */
function ClaimedSteps({
  claimedSteps,
  isOwn,
  step,
  onSteps,
}: {
  claimedSteps: number | null;
  /** Set by hand, other than what is read. */
  isOwn: boolean;
  step: LengthStepId;
  onSteps: (steps: number | null) => void;
}) {
  return (
    <>
      <span className="font-semibold">Claim</span>
      <div className="flex items-center gap-2">
        <button
          type="button"
          aria-label="One step less"
          className="btn btn-square size-16 lg:size-12 text-xl"
          disabled={!claimedSteps}
          onClick={() => onSteps(Math.max(0, (claimedSteps ?? 0) - 1))}
        >
          −
        </button>
        <output className="num min-w-16 text-center text-2xl">
          {claimedSteps === null ? '–' : formatSteps(claimedSteps, step)}
        </output>
        <button
          type="button"
          aria-label="One step more"
          className="btn btn-square size-16 lg:size-12 text-xl"
          disabled={claimedSteps === null}
          onClick={() => onSteps((claimedSteps ?? 0) + 1)}
        >
          +
        </button>
        {isOwn && (
          <button
            type="button"
            className="linklike min-h-16 lg:min-h-11 text-sm"
            onClick={() => onSteps(null)}
          >
            as read
          </button>
        )}
      </div>
    </>
  );
}
