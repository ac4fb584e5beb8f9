import { Checkbox } from "@mantine/core";
import { spreadItems } from "@/core/select/place";
import { SpreadPicture } from "@/ui/base/parts/SpreadPicture";
import { useShow } from "@/ui/show/useSession";
import classes from "./Values.module.css";

/** Rows a picture is worked out from: more have no room in it. */
const MOST = 512;

interface Props {
  /** The spread of the hands in words; empty where it is off. */
  bent: string;
  /** What a spread would go over, from first to last. */
  rows: readonly { id: string }[];
  on: boolean;
  onChange(on: boolean): void;
}

/** Whether the spread of the hands bends what is typed into cells, with its picture. */
export function UseSpread({ bent, rows, on, onChange }: Props) {
  const show = useShow((s) => s.world.show);
  const spread = useShow((s) => s.world.hands.spread);
  if (bent === "") return null;
  const ids = rows.slice(0, MOST).map((row) => row.id);
  return (
    <div className={classes.spread} data-on={on}>
      <Checkbox
        size="xs"
        label="use Spread"
        title={`${bent}. Unticked, a spread goes plainly from the first row to the last`}
        checked={on}
        onChange={(e) => onChange(e.currentTarget.checked)}
      />
      <SpreadPicture {...spreadItems(show, ids, spread)} />
    </div>
  );
}
