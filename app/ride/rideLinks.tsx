import { href, Form, Link } from "react-router";

interface RideLinksProps {
  readonly testId: string;
  readonly rides: readonly { readonly id: string; readonly name: string }[];
  readonly rideId: string;
  /** Another ride on this charge may be begun. */
  readonly more: boolean;
}

/** Where else this test goes: its strip, its other rides, another ride on the same charge. */
export function RideLinks({ testId, rides, rideId, more }: RideLinksProps) {
  return (
    <section className="flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
      <Link to={href("/strip/:testId", { testId })} className="md:hidden">
        Strip of this test
      </Link>
      {rides.length > 1
        ? rides.map(({ id, name }) => (
            <Link
              key={id}
              to={`${href("/ride/:testId", { testId })}?ride=${id}`}
              aria-current={id === rideId ? "page" : undefined}
              className={id === rideId ? "font-bold" : ""}
            >
              {name}
            </Link>
          ))
        : null}
      {more ? (
        <Form method="post">
          <button type="submit" className="button button-plain">
            Another ride on this charge
          </button>
        </Form>
      ) : null}
    </section>
  );
}
