/** Pages of a long list; the words say which way its order goes. Nothing where one page holds everything. */
export function Pager({
  page,
  size,
  total,
  onPage,
  back = 'Before',
  on = 'Next',
}: {
  page: number;
  size: number;
  total: number;
  onPage: (page: number) => void;
  back?: string;
  on?: string;
}) {
  const pages = Math.ceil(total / size);
  if (pages <= 1) return null;
  return (
    <nav aria-label="Pages" className="mt-3 flex items-center gap-3">
      <button className="button" disabled={page === 0} onClick={() => onPage(page - 1)}>
        {back}
      </button>
      <span className="small">
        {page * size + 1}–{Math.min(total, (page + 1) * size)} of {total}
      </span>
      <button className="button" disabled={page >= pages - 1} onClick={() => onPage(page + 1)}>
        {on}
      </button>
    </nav>
  );
}
