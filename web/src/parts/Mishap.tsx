import { Component, type ReactNode } from "react";

/** When the page itself fails: say so and offer a way on, rather than going blank. */
export class Mishap extends Component<{ children: ReactNode }, { message: string }> {
  override state = { message: "" };

  static getDerivedStateFromError(e: unknown) {
    return { message: e instanceof Error ? e.message : String(e) };
  }

  override render() {
    if (!this.state.message) return this.props.children;
    return (
      <main id="main" className="p-8">
        <h1 className="text-3xl">The page has failed.</h1>
        <p className="mt-2">Nothing is lost: everything is saved as it happens. ({this.state.message})</p>
        <p className="mt-4">
          <a href="/" className="underline">
            Begin again at the shelf
          </a>
        </p>
      </main>
    );
  }
}
