import { Link } from "react-router";
import { buttonLook } from "../../ui/Button";
import { Page } from "../../ui/Page";

const WHY: readonly (readonly [string, string])[] = [
  [
    "A sheet sells.",
    "It names the composition the maker orders, not the one in your hand, and the hardness the " +
      "heat treater aims at. Kessik keeps it as claimed, and shows it as claimed.",
  ],
  [
    "Two sheets are seldom equal.",
    "One steel austenitised hot carries more chromium in solution; one cooled below zero holds " +
      "less soft austenite; one is two points harder. Laid side by side, sheets compare heat " +
      "treatments and call it steel.",
  ],
  [
    "An analyser measures, and not everything.",
    "It sees chromium, molybdenum, vanadium, tungsten and their like well, silicon, phosphorus " +
      "and sulphur poorly, carbon and nitrogen never. So a claim is consistent, undecidable or " +
      "excluded, and a steel never is something.",
  ],
  [
    "A claim counts for nothing in an answer.",
    "No matching, ranking or verdict treats a claim or a guess as a measurement: a claimed " +
      "hardness leaves a trial pending, an excluded grade is a mismatch, and in a chart of " +
      "composition against lives a claimed blade is hollow.",
  ],
  [
    "Ranges have a standing, too.",
    "Ranges of the library are unconfirmed until someone checks them against the standard and " +
      "confirms them; a verdict that excludes by such a range says so.",
  ],
];

/** Why a maker's sheet is kept apart from measurements. */
export function Standing() {
  return (
    <Page>
      <h1 className="answer max-w-3xl">Why a maker's sheet is not a measurement</h1>
      <dl className="mt-5 max-w-3xl">
        {WHY.map(([title, text]) => (
          <div key={title} className="border-b border-line py-3">
            <dt className="text-lead font-bold">{title}</dt>
            <dd className="mt-1">{text}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-5">
        <Link className={buttonLook("quiet")} to="/assay">
          Back to the assay
        </Link>
      </p>
    </Page>
  );
}
