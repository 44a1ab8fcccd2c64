import { Component, type ReactNode } from "react";
import { Button } from "../shared/ui/plain";

/** A fault in one view stays in it: the rest of the app goes on, and the view can be opened again. */
export class Guard extends Component<{ children: ReactNode }, { fault: string | null }> {
  override state = { fault: null };

  static getDerivedStateFromError(error: unknown) {
    return { fault: String(error) };
  }

  override render() {
    if (this.state.fault === null) return this.props.children;
    return (
      <div className="max-w-xl space-y-4 p-8" role="alert">
        <h1 className="text-3xl">This view cannot be shown</h1>
        <p>
          Something in it went wrong; nothing is lost, and everything else goes on. Open it again, or go to
          another view.
        </p>
        <p className="text-quiet">{this.state.fault}</p>
        <Button onClick={() => this.setState({ fault: null })}>Open it again</Button>
      </div>
    );
  }
}
