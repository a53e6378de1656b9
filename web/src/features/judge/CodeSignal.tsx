import type { BenchReadingView, CatchView } from '@lauta/contract';
import { codeStanding } from '@lauta/core/identifier';
import type { Finding } from '@lauta/vision';
import { Signal } from '../../ui/Signal.tsx';
import { CardCloseUp } from './CardCloseUp.tsx';

/** The code on the card: green only where the server read it in the picture. What the claim names proves nothing. */
export function CodeSignal({
  caught,
  found,
  isReading,
  onShow,
}: {
  caught: CatchView;
  found: BenchReadingView | undefined;
  isReading: boolean;
  /** Shows a finding's place in the photograph, enlarged. */
  onShow: (finding: Finding) => void;
}) {
  const { identifierCode, expectedCode, entrant } = caught;
  const expected = expectedCode ?? 'none';
  const standing = codeStanding({
    readPayload: found?.analysis.identifier?.payload ?? null,
    claimed: identifierCode,
    issued: expectedCode,
    entrantNumber: entrant.number,
  });
  const place = found?.analysis.findings.find(
    ({ check, place: at }) => check.startsWith('identifier-') && at !== null,
  );
  switch (standing.kind) {
    case 'read-as-issued':
      return <Signal tone="clear">code {standing.code} read on the card, as issued</Signal>;
    case 'read-otherwise':
      return (
        <Signal tone="fault">
          the card reads {standing.read}; expected no. {entrant.number}, {expected}
        </Signal>
      );
    case 'read-foreign':
      return <Signal tone="look">the code on the card is none of an event; expected {expected}</Signal>;
    case 'claimed-otherwise':
      return (
        <Signal tone="fault">
          the claim says {standing.claimed}, expected {expected}; no code was read
        </Signal>
      );
    case 'none-issued':
      return <Signal tone="look">no code is issued for this day</Signal>;
    case 'unread':
      return (
        <>
          <Signal tone="look">
            {isReading
              ? `looking for the card: expected ${expected}`
              : `read the card yourself: expected ${expected}`}
          </Signal>
          {!isReading && place && <CardCloseUp caught={caught} finding={place} onShow={onShow} />}
          {!isReading && !place && (
            <p className="text-quiet pl-5 text-sm">None was found in the photograph: look for it there.</p>
          )}
        </>
      );
  }
}
