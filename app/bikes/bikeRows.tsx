import { href, Link } from "react-router";
import { dayText, type Estimate, formatQuantity } from "#core/base";
import type { SetUp, Test } from "#core/records";
import { Act } from "#ui/acts";
import { Figure } from "#ui/figure";
import { useSystem } from "#ui/system";

interface SetUpRowProps {
  readonly bikeId: string;
  readonly setUp: SetUp & { readonly id: string };
}

/** A set-up of a bike, in a table. */
export function SetUpRow({ bikeId, setUp }: SetUpRowProps) {
  const system = useSystem();
  return (
    <tr>
      <th scope="row">
        <Link to={href("/bikes/:bikeId/set-ups/:setUpId", { bikeId, setUpId: setUp.id })}>{setUp.name}</Link>
        <div className="text-sm text-quiet">{setUp.tyre}</div>
      </th>
      <td className="text-sm">
        {[
          setUp.pressurePa === undefined
            ? "pressure not noted"
            : formatQuantity(setUp.pressurePa, "pressure", system),
          setUp.lightsOn ? "lights on" : "lights off",
          setUp.since ? `since ${dayText(setUp.since)}` : "",
          setUp.changed,
          setUp.carriedKg ? `carries ${formatQuantity(setUp.carriedKg, "mass", system, 0)}` : "",
        ]
          .filter(Boolean)
          .join(", ")}
      </td>
      <td className="number text-sm">
        {(["duplicate", "archive"] as const).map((intent) => (
          <Act
            key={intent}
            kind="setUp"
            id={setUp.id}
            intent={intent}
            list={href("/bikes/:bikeId", { bikeId })}
            name={setUp.name}
          />
        ))}
      </td>
    </tr>
  );
}

interface TestRowProps {
  readonly id: string;
  readonly test: Test;
  readonly setUpName: string | null;
  /** Wh per metre; null while nothing is reckoned. */
  readonly whPerM: Estimate | null;
}

/** A test of a bike, in a table. */
export function TestRow({ id, test, setUpName, whPerM }: TestRowProps) {
  return (
    <tr>
      <th scope="row">
        <Link to={href("/strip/:testId", { testId: id })}>{test.title}</Link>
        <div className="text-sm text-quiet">
          {[test.school, test.drive, setUpName, dayText(test.day)].filter(Boolean).join(", ")}
        </div>
      </th>
      <td className="number">
        {whPerM ? (
          <Figure value={whPerM} dimension="energyPerDistance" />
        ) : (
          <span className="text-quiet">nothing to reckon yet</span>
        )}
      </td>
    </tr>
  );
}
