/** Earlier and later pages of a list. */
export function Pager({
  page,
  pageSize,
  total,
  onPage,
}: {
  page: number;
  pageSize: number;
  total: number;
  onPage: (page: number) => void;
}) {
  const last = Math.max(1, Math.ceil(total / pageSize));
  if (last === 1) return null;
  return (
    <nav aria-label="Pages" className="mt-4 flex items-center gap-3">
      <button type="button" className="btn" disabled={page <= 1} onClick={() => onPage(page - 1)}>
        Before
      </button>
      <span className="num">
        {page} of {last}
      </span>
      <button type="button" className="btn" disabled={page >= last} onClick={() => onPage(page + 1)}>
        After
      </button>
    </nav>
  );
}
