import { Form } from "react-router";

interface WhichBikeProps {
  readonly bikes: readonly { readonly id: string; readonly name: string }[];
  readonly bikeId: string;
}

/** Which bike it is of: taken, the page asks for what belongs to it. */
export function WhichBike({ bikes, bikeId }: WhichBikeProps) {
  return (
    <Form className="max-w-sm">
      <label className="mb-1 block text-sm font-medium" htmlFor="which-bike">
        Bike
      </label>
      <div className="flex gap-2">
        <select id="which-bike" name="bike" className="input" defaultValue={bikeId}>
          {bikes.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
        <button className="button">Take</button>
      </div>
    </Form>
  );
}
