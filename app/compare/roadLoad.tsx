import { href, Link } from "react-router";
import type { BikeParameter } from "#core/desk";
import { fixed, halfWidth95 } from "#core/base";

interface RoadLoadProps {
  readonly road: readonly BikeParameter[];
  /** Days of the bike on the desk: tests, sweeps, climbs. */
  readonly rests: number;
  readonly bikeId: string;
}

/** An unknown that keeps this share of its spread was not learned. */
const UNLEARNED = 0.9;

/** What the desk believes of the bike's road load, against what its kind lets expect. */
export function RoadLoad({ road, rests, bikeId }: RoadLoadProps) {
  const learned = road.filter(({ left }) => left < UNLEARNED);
  return (
    <>
      <table className="table w-full text-sm">
        <caption className="sr-only">The bike's road load, as now believed and as assumed</caption>
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col" className="number">
              Now believed
            </th>
            <th scope="col" className="number">
              Assumed
            </th>
          </tr>
        </thead>
        <tbody>
          {road.map(({ name, value, assumed, left }) => {
            const digits = value.mean < 0.1 ? 4 : 2;
            return (
              <tr key={name}>
                <th scope="row">{name}</th>
                <td className={`number ${left < UNLEARNED ? "" : "pencil"}`}>
                  {fixed(value.mean, digits)} ± {fixed(halfWidth95(value), digits)}
                </td>
                <td className="number text-quiet">
                  {fixed(assumed.mean, digits)} ± {fixed(halfWidth95(assumed), digits)}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="mt-2 text-sm">
        {rests === 0
          ? "No test, sweep or climb of this bike has a figure yet: all is as its kind lets expect. "
          : `From ${rests === 1 ? "one day" : `${rests} days`} of this bike, and from what the desk knows of its riders. `}
        {rests > 0 && learned.length === 0
          ? "They taught little of any one of these, only of what they take together. "
          : ""}
        A <Link to={`${href("/compare/sweeps/new")}?bike=${bikeId}`}>sweep</Link> or a{" "}
        <Link to={`${href("/compare/climbs/:climbId", { climbId: "new" })}?bike=${bikeId}`}>climb</Link> tells
        them apart.
      </p>
    </>
  );
}
