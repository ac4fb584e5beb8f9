"use client";

import { Button, Checkbox, Menu } from "@mantine/core";
import { IconColumns3 } from "@tabler/icons-react";
import type { ReactNode } from "react";
import { orderedColumns, type SheetColumn, type SheetView } from "./view";
import classes from "./Sheet.module.css";

interface Props {
  columns: readonly SheetColumn[];
  view: SheetView;
  setView(next: SheetView): void;
  /** What else is chosen of the sheet, above its columns. */
  children?: ReactNode;
}

/** Which columns of a sheet are in sight. */
export function ColumnsMenu({ columns, view, setView, children }: Props) {
  return (
    <Menu closeOnItemClick={false} position="bottom-start" shadow="md">
      <Menu.Target>
        <Button size="compact-sm" variant="default" leftSection={<IconColumns3 size={14} />}>
          Columns
        </Button>
      </Menu.Target>
      <Menu.Dropdown className={classes.columns}>
        {children}
        {orderedColumns(columns, view)
          .filter((c) => !c.fixed)
          .map((c) => (
            <Menu.Item key={c.id} component="label">
              <Checkbox
                size="xs"
                label={c.title === c.hint ? c.title : `${c.title} · ${c.hint}`}
                checked={!view.hidden.includes(c.id)}
                onChange={(e) =>
                  setView({
                    ...view,
                    hidden: e.currentTarget.checked ? view.hidden.filter((h) => h !== c.id) : [...view.hidden, c.id],
                  })
                }
              />
            </Menu.Item>
          ))}
      </Menu.Dropdown>
    </Menu>
  );
}
