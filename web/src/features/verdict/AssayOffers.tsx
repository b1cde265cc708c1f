import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { assayOffersQuery } from "../../api/queries";

/** A life far below what its grade usually gives asks whether it is that grade at all. */
export function AssayOffers({ trialId }: { trialId: string }) {
  const found = useQuery(assayOffersQuery(trialId));
  if (!found.data?.length) return null;
  return (
    <ul className="mt-2 max-w-4xl border-l-4 border-glint pl-4">
      {found.data.map((offer) => (
        <li key={offer.blade_id}>
          {offer.says}{" "}
          <Link
            className="font-semibold underline underline-offset-4"
            to={`/assay/blades/${offer.blade_id}`}
          >
            Open its assay
          </Link>
        </li>
      ))}
    </ul>
  );
}
