import { useQuery } from '@tanstack/react-query';
import type { BenchReadingView, CatchView } from '@lauta/contract';
import type { LengthMeasure } from '@lauta/core/rules';
import { LENGTH_STEPS, formatMeasured, formatSmallLength } from '@lauta/core/units';
import { getJson } from '../door/ask.ts';
import { Signal } from '../ui/Signal.tsx';
import { TROUBLE_WORDS } from './words.ts';
import type { CatchId } from '@lauta/core/ids';

const UNREAD_MS = 4000;

/** What the server reads off the stored original by itself; only for those who may see the original. */
export function useServerReading(caught: CatchView, isWanted: boolean) {
  return useQuery<BenchReadingView>({
    queryKey: ['event', caught.eventId, 'catch', caught.catchId, 'bench-reading'],
    enabled: isWanted,
    staleTime: Infinity,
    // As long as earlier fish are still being read there may be more to say.
    refetchInterval: ({ state }) => (state.data && state.data.alikeUnread > 0 ? UNREAD_MS : false),
    queryFn: ({ signal }) =>
      getJson<BenchReadingView>(`/api/catches/${caught.catchId}/bench-reading`, signal),
  });
}

/** Has the server read the catch that is likely looked at next, once it is done with this one. */
export function useReadAhead(catchId: CatchId | null, isTime: boolean): void {
  useQuery({
    queryKey: ['bench-reading-ahead', catchId],
    enabled: catchId !== null && isTime,
    staleTime: Infinity,
    retry: false,
    // The answer is thrown away: the server remembers it, and gives it at once to whoever asks in earnest.
    queryFn: async ({ signal }) => {
      await getJson(`/api/catches/${catchId ?? ''}/bench-reading?ahead=true`, signal);
      return true;
    },
  });
}

/** The server's reading beside the one that was claimed. */
export function ServerReading({
  found,
  isPending,
  measure,
}: {
  found: BenchReadingView | undefined;
  isPending: boolean;
  measure: LengthMeasure;
}) {
  const { step } = measure;
  const { unit } = LENGTH_STEPS[step];
  if (isPending) return <p className="text-quiet text-sm">The server reads the original …</p>;
  if (!found) return null;
  const { analysis, differenceMm, isDifferent, isTruncated } = found;
  return (
    <section aria-label="The server’s own reading" className="grid gap-1 text-sm">
      {analysis.apparentMm === null ? (
        <Signal tone="look">the server reads no length</Signal>
      ) : (
        <p>
          <Signal tone={isDifferent ? 'look' : 'clear'}>
            {isDifferent ? 'the server reads otherwise' : 'the server reads the same'}
          </Signal>{' '}
          <span className="num">
            {formatMeasured(analysis.apparentMm, unit)} {unit} ±{' '}
            {formatSmallLength(analysis.sigmaMm ?? 0, step)}
          </span>
          {differenceMm !== null && (
            <span className="text-quiet">
              ,{' '}
              {Math.abs(differenceMm) < 0.05
                ? 'no difference'
                : `${formatSmallLength(Math.abs(differenceMm), step)} ${differenceMm > 0 ? 'more' : 'less'} than claimed`}
            </span>
          )}
        </p>
      )}
      {analysis.trouble && <p className="text-quiet">{TROUBLE_WORDS[analysis.trouble]}</p>}
      {isTruncated && <Signal tone="look">the file breaks off; what there is was read</Signal>}
    </section>
  );
}
