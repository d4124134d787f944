import { formatQuantity, formatUncertain } from "#core/base";
import type { Debrief } from "#core/simulator";
import { useSpoken, useSystem } from "#ui/system";

/** After a rehearsal: the person's reckoning against what was truly so. */
export function Truth({ debrief: { rows, remarks } }: { readonly debrief: Debrief }) {
  const system = useSystem();
  const say = useSpoken();
  const hits = rows.filter(({ inside }) => inside).length;
  return (
    <section aria-label="The truth" className="sheet p-4">
      <h2>Your reckoning and the truth</h2>
      <p className="mb-2 text-quiet">
        {hits === rows.length
          ? "Each plus-or-minus holds the truth."
          : `${hits} of ${rows.length} hold the truth; of many such figures 95 in 100 should.`}
      </p>
      <table className="table w-full">
        <caption className="sr-only">What the rehearsal was, and what was found</caption>
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col" className="number">
              Yours
            </th>
            <th scope="col" className="number">
              Truth
            </th>
            <th scope="col">Holds</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ what, dimension, yours, truth, inside }) => (
            <tr key={what}>
              <th scope="row">{what}</th>
              <td className="number">{formatUncertain(yours, dimension, system)}</td>
              <td className="number font-bold">{formatQuantity(truth, dimension, system)}</td>
              <td className={inside ? "text-spruce" : "text-rust"}>{inside ? "yes" : "no"}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <ul className="mt-3 grid gap-1">
        {remarks.map((remark) => (
          <li key={remark}>{say(remark)}</li>
        ))}
      </ul>
    </section>
  );
}
