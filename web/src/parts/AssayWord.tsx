import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { bladeAssayQuery } from "../api/queries";

/** What an assay says of the steel a blade is sold as, and the way there. */
export function AssayWord({ bladeId }: { bladeId: string }) {
  const found = useQuery(bladeAssayQuery(bladeId, true));
  if (!found.data) return null;
  const { line } = found.data;
  const isShot = line.verdict !== "not_shot";
  return (
    <p className="text-note">
      {isShot ? <span className="block">{line.sentence}</span> : null}
      <Link className="font-semibold underline underline-offset-4" to={`/assay/blades/${line.id}`}>
        {isShot ? "Its assay" : "Assay its steel"}
      </Link>
    </p>
  );
}
