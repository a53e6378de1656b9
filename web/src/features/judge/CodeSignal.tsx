import type { CatchView } from '@lauta/contract';
import { Signal } from '../../frame/Signal.tsx';

/** The code that was claimed against the one that was issued for that day. */
export function CodeSignal({ caught }: { caught: CatchView }) {
  const { identifierCode, expectedCode } = caught;
  if (identifierCode === null)
    return <Signal tone="look">no code given; expected {expectedCode ?? 'none'}</Signal>;
  return identifierCode === expectedCode ? (
    <Signal tone="clear">code {identifierCode}, as issued</Signal>
  ) : (
    <Signal tone="fault">
      code {identifierCode}, expected {expectedCode ?? 'none'}
    </Signal>
  );
}
