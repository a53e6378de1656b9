import { boardLines, boardNumerals, faceLengthMm, type MeasuringBoard } from '@lauta/vision';
import { widthWords } from '@lauta/words/boards';

/** A kind of board as its profile draws it, from straight above: the stop at the left. */
export function BoardDrawing({ board }: { board: MeasuringBoard }) {
  const lengthMm = faceLengthMm(board);
  const { widthMm, stop, wall } = board;
  const stopMm = Math.max(4, stop.thicknessMm);
  const wallMm = wall ? Math.max(3, wall.thicknessMm) : 0;
  const lines = boardLines(board)
    .flatMap(({ xMm, strokeMm, spans }) =>
      spans.map(([from, to]) => {
        const left = Math.min(Math.max(0, xMm - strokeMm / 2), lengthMm - strokeMm / 2);
        return `M${left} ${from * widthMm}h${strokeMm}v${(to - from) * widthMm}h${-strokeMm}z`;
      }),
    )
    .join('');
  return (
    <svg
      viewBox={`${-stopMm} ${-wallMm} ${lengthMm + stopMm} ${widthMm + wallMm}`}
      className="border-base-300 block w-full border"
      role="img"
      aria-label={`The ${board.name}: ${board.scaleLength} ${board.unit}, ${widthWords(widthMm, board.unit)}`}
    >
      <rect width={lengthMm} height={widthMm} fill={board.face} />
      <path d={lines} fill={board.ink} />
      {boardNumerals(board).map(({ text, rightMm, centreYMm, heightMm }) => (
        <text
          key={`${text} ${centreYMm}`}
          x={rightMm}
          y={centreYMm + heightMm / 2}
          textAnchor="end"
          fontFamily="sans-serif"
          fontWeight="bold"
          // Capitals are about seven tenths of a font's size.
          fontSize={heightMm / 0.72}
          fill={board.ink}
        >
          {text}
        </text>
      ))}
      {wall && <rect x={0} y={-wallMm} width={lengthMm} height={wallMm} fill={wall.colour} />}
      <rect x={-stopMm} y={-wallMm} width={stopMm} height={widthMm + wallMm} fill={stop.colour} />
      {stop.band && <rect x={-stopMm / 3} width={stopMm / 3} height={widthMm} fill={stop.band} />}
    </svg>
  );
}
