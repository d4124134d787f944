import { Link, useSearchParams } from "react-router";

/** The pages of a long list: the one before, the one after, and where one is. */
export function Pages({ page, pages }: { readonly page: number; readonly pages: number }) {
  const [search] = useSearchParams();
  if (pages <= 1) return null;
  const to = (number: number) => {
    const next = new URLSearchParams(search);
    next.set("page", String(number));
    return `?${next}`;
  };
  return (
    <nav aria-label="Pages of the list" className="flex items-center gap-3">
      {page > 1 ? (
        <Link className="button" to={to(page - 1)} rel="prev">
          Newer
        </Link>
      ) : null}
      <span className="text-quiet">
        Page {page} of {pages}
      </span>
      {page < pages ? (
        <Link className="button" to={to(page + 1)} rel="next">
          Older
        </Link>
      ) : null}
    </nav>
  );
}
