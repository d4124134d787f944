import { Form } from "react-router";
import { SearchList } from "#ui/overlays/searchList";

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
        <SearchList
          id="which-bike"
          name="bike"
          chosen={bikeId}
          choices={bikes.map(({ id, name }) => ({ value: id, label: name }))}
        />
        <button className="button">Take</button>
      </div>
    </Form>
  );
}
