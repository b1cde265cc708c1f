import { type MouseEvent, useEffect } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { GUIDE } from "../../domain/guide.gen";
import { GUIDE_INDEX } from "../../domain/guideIndex.gen";
import { Note } from "../../ui/Note";
import { Page } from "../../ui/Page";

const PICTURES = import.meta.glob<string>("../../../../docs/screenshots/*.png", {
  eager: true,
  query: "?url",
  import: "default",
});
const LOOK =
  "max-w-3xl [&_h2]:mt-5 [&_h2]:text-lead [&_h2]:font-bold [&_p]:mt-3 [&_ul]:mt-3 [&_ul]:list-disc " +
  "[&_ul]:pl-5 [&_ol]:mt-3 [&_ol]:list-decimal [&_ol]:pl-5 [&_li]:mt-1 [&_a]:underline " +
  "[&_a]:underline-offset-4 [&_a]:font-semibold [&_img]:mt-2 [&_img]:border-[1.5px] " +
  "[&_img]:border-line [&_img]:w-full [&_table]:mt-3 [&_th]:text-left [&_th]:text-note " +
  "[&_td]:border-t [&_td]:border-line [&_td]:py-1.5 [&_td]:pr-4 [&_td]:align-top";

/** One page a job, with pictures of the demo and where to do it now. */
export function Guide() {
  const { slug = GUIDE_INDEX[0].slug } = useParams();
  const navigate = useNavigate();
  const page = GUIDE_INDEX.find((each) => each.slug === slug);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another page begins at its top
  useEffect(() => {
    window.scrollTo(0, 0); // it may return a promise, which is no way to leave an effect
  }, [slug]);
  const follow = (event: MouseEvent) => {
    const address = (event.target as Element).closest("a")?.getAttribute("href");
    if (!address?.startsWith("/") || event.metaKey || event.ctrlKey) return;
    event.preventDefault();
    navigate(address);
  };
  return (
    <Page>
      <div className="grid gap-x-12 gap-y-6 bench:grid-cols-[16rem_minmax(0,1fr)]">
        <nav aria-label="Guide" className="max-bench:order-last print:hidden">
          <Note className="font-medium">Guide</Note>
          <ul>
            {GUIDE_INDEX.map((each) => (
              <li key={each.slug}>
                <Link
                  to={`/guide/${each.slug}`}
                  aria-current={each.slug === slug ? "page" : undefined}
                  className={`flex min-h-9 items-center
                    ${each.slug === slug ? "font-bold" : "underline decoration-line underline-offset-4"}`}
                >
                  {each.title}
                </Link>
              </li>
            ))}
          </ul>
        </nav>
        {page ? (
          <article>
            <h1 className="answer max-w-3xl">{page.title}</h1>
            {/* biome-ignore lint/a11y/useKeyWithClickEvents: Enter on a link is a click */}
            {/* biome-ignore lint/a11y/noStaticElementInteractions: the links inside are followed */}
            <div
              className={LOOK}
              onClick={follow}
              // biome-ignore lint/security/noDangerouslySetInnerHtml: our own text, made at build
              dangerouslySetInnerHTML={{ __html: withPictures(GUIDE[page.slug]) }}
            />
          </article>
        ) : (
          <p>
            The guide has no page of this name. <Link to="/guide">Begin at its first page.</Link>
          </p>
        )}
      </div>
    </Page>
  );
}

/** Pictures under the addresses they are shipped at. */
const withPictures = (html: string): string =>
  html.replaceAll(/<img src="([^"]+)"/g, (whole, name: string) => {
    const address = PICTURES[`../../../../docs/screenshots/${name}`];
    return address ? `<img loading="lazy" src="${address}"` : whole;
  });
