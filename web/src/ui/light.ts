/** The light of the pages: the system's, but for the bench, which is dark whatever the hour. */

const system = () => window.matchMedia("(prefers-color-scheme: dark)");
let atTheBench = false;

const shine = () =>
  document.documentElement.classList.toggle("bench-dark", atTheBench || system().matches);

/** Follow the system from now on. */
export function followTheSystem(): void {
  system().addEventListener("change", shine);
  shine();
}

/** Come to the bench, or leave it. */
export function benchLight(is: boolean): void {
  atTheBench = is;
  shine();
}
