import { Button, Group, Progress } from "@mantine/core";

/** How far something that is read has come, and a way to stop it. @param share 0 to 1. */
export const ReadingBar = ({ share, onStop }: { share: number; onStop(): void }) => (
  <Group gap="sm" wrap="nowrap" flex={1} miw={240}>
    <Progress value={share > 0 ? share * 100 : 100} animated={share === 0} aria-label="Reading" flex={1} />
    <Button size="compact-sm" variant="default" onClick={onStop}>
      Cancel
    </Button>
  </Group>
);
