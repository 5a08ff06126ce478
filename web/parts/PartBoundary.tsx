import { Component, type ReactNode } from 'react';
import { PlainButton } from '../ui/PlainButton';

interface Props {
  /** What the part is called in a sentence. */
  name: string;
  children: ReactNode;
}

/** Keeps a fault of one part of the page inside it: the other parts go on, and what was drawn is saved all the same. */
export class PartBoundary extends Component<Props, { fault: Error | null }> {
  override state: { fault: Error | null } = { fault: null };

  static getDerivedStateFromError(fault: Error) {
    return { fault };
  }

  override render() {
    const { fault } = this.state;
    if (!fault) return this.props.children;
    return (
      <div className="finding is-fault" role="alert">
        <strong>{this.props.name} stopped on a fault in Emery.</strong> Your entries are kept. The message:{' '}
        {fault.message} <PlainButton onClick={() => this.setState({ fault: null })}>Try again</PlainButton>
      </div>
    );
  }
}
