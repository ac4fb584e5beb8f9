"use client";

import { Button, Group, Text } from "@mantine/core";
import { Component, type ReactNode } from "react";

interface Props {
  /** What fails here, as it is told: "This place". */
  what: string;
  /** Its place in the frame. */
  area?: string;
  /** Another key shows the children anew. */
  on?: string;
  children: ReactNode;
}

/** Keeps a fault in what is drawn to where it is: it says so and offers itself again, while the show runs on. */
export class Fence extends Component<Props, { fault: string | null; on: string | undefined }> {
  override state = { fault: null, on: this.props.on };

  static getDerivedStateFromError(error: unknown) {
    return { fault: error instanceof Error ? error.message : String(error) };
  }

  static getDerivedStateFromProps({ on }: Props, state: { fault: string | null; on: string | undefined }) {
    return on === state.on ? null : { fault: null, on };
  }

  override render(): ReactNode {
    if (this.state.fault === null) return this.props.children;
    return (
      <Group role="alert" gap="sm" justify="center" px="sm" style={{ gridArea: this.props.area, overflow: "hidden" }}>
        <Text size="sm">
          {this.props.what} could not be shown: {this.state.fault}. The show runs on.
        </Text>
        <Button size="compact-sm" variant="default" onClick={() => this.setState({ fault: null })}>
          Show it again
        </Button>
      </Group>
    );
  }
}
