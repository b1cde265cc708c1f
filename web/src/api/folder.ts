/** Which folder the pages show: the real one, or that of the guided practice under /practice. */

const PRACTICE = "/practice";

export const inPractice =
  typeof location !== "undefined" && `${location.pathname}/`.startsWith(`${PRACTICE}/`);

/** What the addresses of this folder's pages and answers begin with. */
export const folderBase = inPractice ? PRACTICE : "";

/** The address of an answer of this folder, for links, pictures and whatever is not fetched as JSON. */
export const folderAddress = (path: string) => `${folderBase}${path}`;

/** The address of a page of the practice, seen from either folder. */
export const practicePage = (path: string) => `${PRACTICE}${path}`;
