import { Component, type ReactNode } from "react";
import { Trouble } from "../../parts/Trouble";

/** A record that says what no walk says is told to be none; the page stays. */
export class Unplayable extends Component<{ children: ReactNode }, { broken: boolean }> {
  state = { broken: false };

  static getDerivedStateFromError() {
    return { broken: true };
  }

  render() {
    if (this.state.broken)
      return <Trouble error={new Error("walk/walk.json says what no walk says: it cannot be played.")} />;
    return this.props.children;
  }
}
