/** Where a screen that throws ends: it says so, and everything around it goes on. */
import { Component, type ErrorInfo, type ReactNode } from "react";
import { Button, Empty } from "./controls";

type Props = { children: ReactNode };
type State = { error: unknown };

export class Broken extends Component<Props, State> {
  override state: State = { error: null };

  static getDerivedStateFromError(error: unknown): State {
    return { error };
  }

  override componentDidCatch(error: unknown, info: ErrorInfo) {
    console.error("A screen broke", error, info.componentStack);
  }

  override render() {
    if (this.state.error === null) return this.props.children;
    return (
      <div role="alert" className="p-10">
        <Empty title="This screen broke">
          <p>
            What was saved is safe, and what you typed last is kept in this browser. The other stops work; try
            this one again, or reload the page.
          </p>
          <div className="flex gap-2">
            <Button weight="main" onClick={() => this.setState({ error: null })}>
              Try again
            </Button>
            <Button onClick={() => window.location.reload()}>Reload the page</Button>
          </div>
        </Empty>
      </div>
    );
  }
}
