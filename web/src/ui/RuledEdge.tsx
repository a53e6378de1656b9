/** A place on the edge: its share of the way from lines-in to lines-out, and the hour that stands there. */
export interface HourMark {
  share: number;
  hour: string;
}

const QUARTERS = 4;

/** The header's lower edge: a board whose length is the session, ruled by the hour, with the event's clock on it. */
export function RuledEdge({ hours, nowShare }: { hours: readonly HourMark[]; nowShare: number | null }) {
  const marks =
    hours.length > 0 ? hours : Array.from({ length: 13 }, (_, i) => ({ share: i / 12, hour: '' }));
  return (
    <div aria-hidden="true" className="border-base-content relative h-5 overflow-x-clip border-b-2">
      {marks.map(({ share, hour }, i) => {
        const next = marks[i + 1];
        return (
          <div key={share}>
            <i
              className={`bg-base-content absolute bottom-0 h-3 w-[1.5px] ${i === marks.length - 1 ? '-translate-x-full' : ''}`}
              style={{ left: `${share * 100}%` }}
            />
            {hour && (
              <span
                className={`num text-quiet absolute bottom-1.5 pl-1 text-[0.6875rem] leading-none ${i % 2 === 1 ? 'max-sm:hidden' : ''} ${i === marks.length - 1 ? '-translate-x-full pr-2' : ''}`}
                style={{ left: `${share * 100}%` }}
              >
                {hour}
              </span>
            )}
            {next &&
              Array.from({ length: QUARTERS - 1 }, (_, quarter) => (
                <i
                  key={quarter}
                  className="bg-base-content absolute bottom-0 h-1.5 w-px"
                  style={{ left: `${(share + ((next.share - share) * (quarter + 1)) / QUARTERS) * 100}%` }}
                />
              ))}
          </div>
        );
      })}
      {nowShare !== null && (
        <i
          className="border-t-error absolute bottom-0 -ml-2 size-0 border-x-8 border-t-[12px] border-x-transparent"
          style={{ left: `${nowShare * 100}%` }}
        />
      )}
    </div>
  );
}
