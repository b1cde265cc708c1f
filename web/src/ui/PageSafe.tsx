import { Component, type ReactNode } from "react";
import { useLocation } from "react-router";
import { folderAddress } from "../api/folder";
import { Failed } from "./State";

/** A page that cannot be shown, or not fetched, is said to be, and the places around it stay. */
export function PageSafe({ children }: { children: ReactNode }) {
  return <Caught at={useLocation().pathname}>{children}</Caught>;
}

interface Props {
  /** Another place is tried anew. */
  at: string;
  children: ReactNode;
}

class Caught extends Component<Props, { error: Error | null }> {
  override state: { error: Error | null } = { error: null };

  static getDerivedStateFromError(error: unknown) {
    return { error: error instanceof Error ? error : new Error(String(error)) };
  }

  override componentDidUpdate(before: Props) {
    if (before.at !== this.props.at && this.state.error) this.setState({ error: null });
  }

  override render() {
    if (!this.state.error) return this.props.children;
    return <Failed error={new Error(said(this.state.error))} onRetry={loadAgain} />;
  }
}

/** Not while the server is away: the browser would put its own page in place of this one. */
const loadAgain = () =>
  void fetch(folderAddress("/api/pairing")).then(
    () => window.location.reload(),
    () => undefined,
  );

/** Browsers differ in how they say that a part of the pages did not come. */
const said = ({ message }: Error) =>
  /import|module|chunk|preload/i.test(message)
    ? "This page did not arrive. Is Kessik still running? Nothing that was saved is lost."
    : "This page cannot be shown. Nothing that was saved is lost.";
