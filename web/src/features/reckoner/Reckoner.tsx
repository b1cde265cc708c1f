import { Link } from "react-router";
import { Page } from "../../ui/Page";
import { Bevels } from "./Bevels";
import { Brine, BrineChange, Conditions, RustRatings } from "./Brine";
import { Abrasive, Convex, Exposure, Growth, Hardness, Length } from "./Small";

const PLACES = [
  ["bevel", "Bevel and thickness"],
  ["length", "thou and mm"],
  ["growth", "Growing thickness"],
  ["convex", "Convex edges"],
  ["exposure", "Exposure"],
  ["abrasive", "Abrasives"],
  ["hardness", "Hardness"],
  ["brine", "Brine"],
  ["ratings", "Ratings of rust"],
] as const;

/**
 * The small calculations of the bench, each with its formula, where it holds, and where it is from.
 */
export function Reckoner() {
  return (
    <Page>
      <div className="flex flex-wrap items-baseline gap-x-8 gap-y-2">
        <h1 className="answer">Small calculations of the bench.</h1>
        <nav aria-label="Calculations" className="flex flex-wrap gap-x-5">
          {PLACES.map(([place, name]) => (
            <a
              key={place}
              href={`#${place}`}
              className={`flex min-h-11 items-center font-semibold underline decoration-line
                underline-offset-4 hover:decoration-ink`}
            >
              {name}
            </a>
          ))}
          <Link
            to="/gauge"
            className={`flex min-h-11 items-center font-semibold underline decoration-line
              underline-offset-4 hover:decoration-ink`}
          >
            Gauge study
          </Link>
        </nav>
      </div>
      <Bevels />
      <div className="grid gap-x-14 bench:grid-cols-2">
        <Length />
        <Hardness />
        <Growth />
        <Convex />
        <Exposure />
        <Abrasive />
        <Brine />
        <BrineChange />
        <Conditions />
        <RustRatings />
      </div>
    </Page>
  );
}
