import { Link } from "react-router";

interface RidesNavProps {
  readonly rides: readonly { readonly id: string; readonly name: string }[];
  readonly rideId: string;
}

/** Which of a test's rides a page is about; nothing for a test of one. */
export function RidesNav({ rides, rideId }: RidesNavProps) {
  if (rides.length < 2) return null;
  return (
    <nav aria-label="Rides" className="flex flex-wrap gap-3 px-4 pt-4 md:px-6">
      {rides.map(({ id, name }) => (
        <Link
          key={id}
          to={`?ride=${id}`}
          aria-current={id === rideId ? "page" : undefined}
          className="button"
        >
          {name}
        </Link>
      ))}
    </nav>
  );
}
