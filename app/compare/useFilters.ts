import { useLocation, useNavigation, useSearchParams } from "react-router";

/**
 * The filters of an address: what it holds, or will once the page on its way is there, so that two quick choices both
 * count; and how one is changed.
 */
export function useFilters() {
  const [shown, setSearch] = useSearchParams();
  const coming = useNavigation().location;
  const here = useLocation();
  const search = coming?.pathname === here.pathname ? new URLSearchParams(coming.search) : shown;
  const change = (edit: (next: URLSearchParams) => void) => {
    const next = new URLSearchParams(search);
    edit(next);
    setSearch(next, { preventScrollReset: true });
  };
  const pick = (name: string, value: string) =>
    change((next) => (value ? next.set(name, value) : next.delete(name)));
  return { search, change, pick };
}
