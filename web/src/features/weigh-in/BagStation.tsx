import { useState, type ReactNode } from 'react';
import type { WeightSheet } from '@lauta/core/rules';
import type { NamedScale } from '@lauta/core/scale';
import { MASS_STEPS, formatMass, formatSteps, stepsFromG, unitOf } from '@lauta/core/units';
import { scaleDoubts, scoreTicket, ticketState, type Ticket, type WeighInAct } from '@lauta/core/weigh-in';
import { clockTime } from '@lauta/words/clock';
import { Field } from '../../ui/Field.tsx';
import { Signal } from '../../ui/Signal.tsx';
import { MassField } from '../../scale/MassField.tsx';
import { SignatureField } from './SignatureField.tsx';
import { PENALTY_KIND_WORDS, SCALE_DOUBT_WORDS, STATE_WORDS } from '@lauta/words/weighIn';
import type { AccountId, EventId, ScaleId } from '@lauta/core/ids';

export interface StationProps {
  eventId: EventId;
  zone: string;
  sheet: WeightSheet;
  ticket: Ticket;
  name: string;
  /** How many the boat said it has aboard; null where it said nothing. */
  declared: number | null;
  linesOutMs: number;
  accountId: AccountId;
  people: Record<string, string>;
  /** The scale at this station; null and undefined where nobody said which. */
  scaleId: ScaleId | null;
  scale: NamedScale | undefined;
  nowMs: number;
  /** Of the wet bag that is in use, g. */
  bagTareG: number;
  onBagTare: (massG: number) => void;
  onActs: (acts: WeighInAct[]) => boolean;
  onNext: () => void;
}

/** One bag at the scale: what has to be done now stands open, what is done stands above it in a line. */
export function BagStation(props: StationProps) {
  const { ticket, sheet, name, declared, linesOutMs, zone } = props;
  const state = ticketState(sheet, ticket);
  const score = scoreTicket(sheet, ticket, linesOutMs);
  const { step } = sheet.measure;
  const unit = unitOf(step);
  const [isCorrecting, setCorrecting] = useState(false);
  return (
    <section aria-labelledby="bag" className="grid gap-4">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 id="bag" className="text-2xl">
          <span className="num">{ticket.number}</span> {name}
        </h2>
        <Signal tone={state === 'signed' ? 'clear' : 'look'}>{STATE_WORDS[state]}</Signal>
      </div>
      <p className="text-quiet">
        arrived <span className="num">{clockTime(new Date(ticket.arrivedAtMs), zone)}</span>
        {score.lateMinutes > 0 && (
          <b className="text-error">
            , {score.lateMinutes} min late{score.isDisqualified ? ': nothing is weighed any more' : ''}
          </b>
        )}
        ; {declared === null ? 'no count declared' : `declared ${declared}`}
      </p>
      {ticket.check && (
        <p>
          Bag: <b className="num">{ticket.check.alive}</b> alive, <b className="num">{ticket.check.dead}</b>{' '}
          dead, <b className="num">{ticket.check.short}</b> short.
          {score.takenOut > 0 && (
            <b className="text-error">
              {' '}
              {score.takenOut} out of the bag before it is weighed
              {score.penalties.some(({ kind }) => kind === 'over-limit')
                ? ` (over the limit: the ${sheet.weighIn?.overLimit.takenOut ?? 'largest'})`
                : ''}
              .
            </b>
          )}
        </p>
      )}
      {ticket.weight && (
        <div className="border-base-300 border-y py-2">
          <p className="flex flex-wrap items-baseline gap-x-4">
            <b className="num text-5xl">{formatSteps(score.totalSteps, step)}</b> {unit}
            <span className="text-quiet">
              gross {formatMass(ticket.weight.grossG, MASS_STEPS[step].unit)}, bag{' '}
              {formatMass(ticket.weight.tareG, MASS_STEPS[step].unit)}
            </span>
          </p>
          {score.penalties.map(({ kind, count, steps, disqualifies }) => (
            <Signal key={kind} tone="fault">
              {disqualifies ? 'the bag does not count' : `${formatSteps(-steps, step)} ${unit}`}{' '}
              {PENALTY_KIND_WORDS[kind](count)}
            </Signal>
          ))}
          {score.bigFishSteps !== null && (
            <p>
              Big fish <b className="num">{formatSteps(score.bigFishSteps, step)}</b> {unit}
            </p>
          )}
        </div>
      )}
      {isCorrecting ? <Correction {...props} onDone={() => setCorrecting(false)} /> : <NextStep {...props} />}
      <div className="flex flex-wrap gap-2">
        {ticket.weight && !isCorrecting && (
          <button type="button" className="btn h-12" onClick={() => setCorrecting(true)}>
            Correct it
          </button>
        )}
        {ticket.weight && (
          <a
            className="btn h-12"
            href={`/api/events/${props.eventId}/tickets/${ticket.ticketId}/ticket.pdf`}
            target="_blank"
            rel="noreferrer"
          >
            Ticket as PDF
          </a>
        )}
      </div>
      {ticket.corrections.map(({ atMs, what, reason, byId }) => (
        <Signal key={atMs} tone="look">
          {clockTime(new Date(atMs), zone)} {what.replace('-', ' ')} changed after signing by{' '}
          {props.people[byId] ?? 'somebody'}: {reason}
        </Signal>
      ))}
    </section>
  );
}

function NextStep(props: StationProps) {
  const { ticket, sheet, onActs, onNext, accountId } = props;
  const { ticketId } = ticket;
  switch (ticketState(sheet, ticket)) {
    case 'waiting':
      return (
        <button
          type="button"
          className="btn btn-primary h-16 text-lg"
          onClick={() => onActs([{ kind: 'called', ticketId }])}
        >
          Call number {ticket.number}
        </button>
      );
    case 'called':
      return <BagCheckForm {...props} reason={null} />;
    case 'checked':
      return <WeighForm {...props} reason={null} />;
    case 'weighed':
      return ticket.weight?.byId === accountId ? (
        <p className="text-lg">
          <Signal tone="look">A second person signs in and confirms this weight.</Signal> Meanwhile the next
          bag can be called.
        </p>
      ) : (
        <button
          type="button"
          className="btn btn-primary h-16 text-lg"
          onClick={() => onActs([{ kind: 'confirmed', ticketId, weighedId: ticket.weight?.entryId ?? '' }])}
        >
          I see the same figures: confirm
        </button>
      );
    case 'confirmed': {
      const signer = ticket.signatures.angler ? 'weigh-master' : 'angler';
      return (
        <SignatureField
          key={signer}
          label={signer === 'angler' ? 'The angler signs' : 'The weigh master signs'}
          onSigned={(signature) => onActs([{ kind: 'signed', ticketId, signer, signature }])}
        />
      );
    }
    case 'signed':
      return ticket.released ? (
        <div className="grid gap-2">
          <p>
            In tank {ticket.released.tank}: {ticket.released.alive} alive, {ticket.released.died} did not make
            it.
          </p>
          <button type="button" className="btn btn-primary h-16 text-lg" onClick={onNext}>
            Next bag
          </button>
        </div>
      ) : (
        <ReleaseForm {...props} />
      );
  }
}

/** A few more than the limit can be told by one tap each. */
const LEAST_PICKS = 8;
const picksUpTo = (most: number): number[] =>
  Array.from({ length: Math.max(LEAST_PICKS, most) + 1 }, (_, i) => i);

/** Alive, dead and short by one tap each; what a full bag usually holds is chosen already. */
function BagCheckForm({
  ticket,
  sheet,
  declared,
  onActs,
  reason,
}: Pick<StationProps, 'ticket' | 'sheet' | 'declared' | 'onActs'> & { reason: string | null }) {
  const [alive, setAlive] = useState(ticket.check?.alive ?? declared ?? sheet.bagLimit);
  const [dead, setDead] = useState(ticket.check?.dead ?? 0);
  const [short, setShort] = useState(ticket.check?.short ?? 0);
  const count = alive + dead;
  const most = Math.max(sheet.bagLimit + 3, declared ?? 0, ticket.check?.alive ?? 0);
  return (
    <form
      className="grid gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        onActs([{ kind: 'checked', ticketId: ticket.ticketId, alive, dead, short, reason }]);
      }}
    >
      <CountPicks label="Alive" most={most} count={alive} onCount={setAlive} />
      <CountPicks label="Dead" most={most} count={dead} onCount={setDead} />
      <CountPicks label="Short, of these" most={most} count={short} onCount={setShort} />
      {declared !== null && declared !== count && (
        <Signal tone="look">
          The boat declared {declared}, the bag holds {count}.
        </Signal>
      )}
      <button type="submit" className="btn btn-primary h-16 text-lg">
        Bag checked
      </button>
    </form>
  );
}

function CountPicks({
  label,
  count,
  most = LEAST_PICKS,
  onCount,
}: {
  label: string;
  count: number;
  /** What has to be among the picks. */
  most?: number;
  onCount: (count: number) => void;
}) {
  return (
    <fieldset>
      <legend className="text-quiet">{label}</legend>
      <div className="flex flex-wrap gap-1">
        {picksUpTo(most).map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={one === count}
            className={`btn num h-14 min-w-12 text-lg ${one === count ? 'btn-primary' : ''}`}
            onClick={() => onCount(one)}
          >
            {one}
          </button>
        ))}
      </div>
    </fieldset>
  );
}

/** Gross off the steady scale or typed; the wet bag's tare is kept from one bag to the next. */
function WeighForm({
  ticket,
  sheet,
  bagTareG,
  onBagTare,
  scaleId,
  scale,
  nowMs,
  onActs,
  reason,
}: Pick<
  StationProps,
  'ticket' | 'sheet' | 'bagTareG' | 'onBagTare' | 'scaleId' | 'scale' | 'nowMs' | 'onActs'
> & { reason: string | null }) {
  const unit = MASS_STEPS[sheet.measure.step].unit;
  const [gross, setGross] = useState<{ massG: number | null; from: 'typed' | 'scale' }>({
    massG: null,
    from: 'typed',
  });
  const [tareG, setTare] = useState<number | null>(bagTareG);
  const [bigG, setBig] = useState<number | null>(null);
  const net = gross.massG === null || tareG === null ? null : gross.massG - tareG;
  const { step, rounding } = sheet.measure;
  return (
    <form
      className="grid gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        if (gross.massG === null || tareG === null) return;
        const { ticketId } = ticket;
        const acts: WeighInAct[] = [
          {
            kind: 'weighed',
            ticketId,
            grossG: gross.massG,
            tareG,
            how: gross.from,
            ...(scaleId === null ? {} : { scaleId }),
            reason,
          },
        ];
        if (bigG !== null) acts.push({ kind: 'big-fish', ticketId, massG: bigG, reason: null });
        if (onActs(acts)) onBagTare(tareG);
      }}
    >
      <p className="text-quiet">Drain the water. On, level, steady, read; zero again afterwards.</p>
      {scaleDoubts(scale, gross.massG, nowMs).map((doubt) => (
        <Signal key={doubt} tone={doubt === 'outside-tolerance' ? 'fault' : 'look'}>
          {SCALE_DOUBT_WORDS[doubt]}
        </Signal>
      ))}
      <div className="grid gap-3 sm:grid-cols-3">
        <MassField
          label="Gross"
          unit={unit}
          onMass={(massG, from) => setGross({ massG, from })}
          isLarge
          withScale
        />
        <MassField label="Wet bag" unit={unit} onMass={setTare} isLarge initialG={bagTareG} />
        <MassField label="Big fish, if weighed" unit={unit} onMass={setBig} isLarge />
      </div>
      <p role="status">
        Net{' '}
        <b className="num text-2xl">
          {net === null || net < 0 ? '–' : formatSteps(stepsFromG(net, step, rounding), step)}
        </b>{' '}
        {unitOf(step)}
      </p>
      <button type="submit" className="btn btn-primary h-16 text-lg" disabled={net === null || net < 0}>
        Confirm weight
      </button>
    </form>
  );
}

function ReleaseForm({ ticket, onActs }: Pick<StationProps, 'ticket' | 'onActs'>) {
  const fish = (ticket.check?.alive ?? 0) + (ticket.check?.dead ?? 0);
  const [tank, setTank] = useState(1);
  const [died, setDied] = useState(ticket.check?.dead ?? 0);
  return (
    <form
      className="grid gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        onActs([
          { kind: 'released', ticketId: ticket.ticketId, tank, alive: Math.max(0, fish - died), died },
        ]);
      }}
    >
      <CountPicks label="Into release tank" count={tank} onCount={(one) => setTank(Math.max(1, one))} />
      <CountPicks
        label="Did not make it, counted for the report"
        most={fish}
        count={died}
        onCount={setDied}
      />
      <button type="submit" className="btn btn-primary h-16 text-lg">
        {fish - died} into tank {tank}
      </button>
    </form>
  );
}

/** A signed or weighed ticket changed: the former figures stay in the record. */
function Correction({ onDone, ...props }: StationProps & { onDone: () => void }) {
  const [reason, setReason] = useState('');
  const [what, setWhat] = useState<'weight' | 'bag'>('weight');
  const onActs = (acts: WeighInAct[]): boolean => {
    const isTaken = props.onActs(acts);
    if (isTaken) onDone();
    return isTaken;
  };
  const said = reason.trim() === '' ? null : reason.trim();
  return (
    <div className="border-warning grid gap-3 border-l-4 pl-4">
      <p>The former figures stay in the record; both sign anew.</p>
      <Field label="Why is it changed?">
        {(field) => (
          <input
            {...field}
            className="input h-12 w-full"
            maxLength={300}
            value={reason}
            onChange={(e) => setReason(e.target.value)}
          />
        )}
      </Field>
      <div className="flex gap-2">
        <Choice isOn={what === 'weight'} onChoose={() => setWhat('weight')}>
          the weight
        </Choice>
        <Choice isOn={what === 'bag'} onChoose={() => setWhat('bag')}>
          the bag check
        </Choice>
        <button type="button" className="btn h-12" onClick={onDone}>
          Leave it
        </button>
      </div>
      {what === 'weight' ? (
        <WeighForm {...props} onActs={onActs} reason={said} />
      ) : (
        <BagCheckForm {...props} onActs={onActs} reason={said} />
      )}
    </div>
  );
}

function Choice({ isOn, onChoose, children }: { isOn: boolean; onChoose: () => void; children: ReactNode }) {
  return (
    <button
      type="button"
      aria-pressed={isOn}
      className={`btn h-12 ${isOn ? 'btn-primary' : ''}`}
      onClick={onChoose}
    >
      {children}
    </button>
  );
}
