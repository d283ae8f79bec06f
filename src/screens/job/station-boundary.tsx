"use client";

import { Component, type ReactNode } from "react";
import { Button } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { keysOf, save } from "../session/storage";

/**
 * Keeps a station that cannot be drawn from taking the bench with it: what was being typed there is the one thing that no
 * journal holds, so it offers to be thrown away.
 */
export class StationBoundary extends Component<{ jobId: string; children: ReactNode }, { broken: boolean }> {
  override state = { broken: false };

  static getDerivedStateFromError() {
    return { broken: true };
  }

  override render() {
    if (!this.state.broken) return this.props.children;
    const discard = () => {
      for (const key of keysOf(`pelota.draft.${this.props.jobId}.`)) save(key, undefined);
      this.setState({ broken: false });
    };
    return (
      <div className="flex max-w-xl flex-col gap-4">
        <ErrorNote>
          This station cannot be drawn. Everything recorded is safe in the journal; what was being typed in this job may be
          damaged.
        </ErrorNote>
        <div className="flex flex-wrap gap-2">
          <Button look="primary" onClick={() => this.setState({ broken: false })}>
            Try again
          </Button>
          <Button look="ember" onClick={discard}>
            Throw away what was being typed
          </Button>
        </div>
      </div>
    );
  }
}
