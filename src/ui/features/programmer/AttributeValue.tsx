"use client";

import { memo, useState } from "react";
import { hold } from "@/core/command/building";
import { attributeInfo } from "@/core/fixture/attribute";
import { holdVoices } from "@/core/command/voices";
import { isStop } from "@/core/show/effectSchema";
import { useForeseen } from "@/ui/show/foresight/foreseen";
import { editEffect } from "@/ui/show/effects/editing";
import { firstWave } from "@/ui/show/effects/firstWave";
import { playedIn } from "@/ui/show/effects/played";
import { typedAmounts, typedLine } from "@/ui/base/typed/typed";
import { ValueRow } from "@/ui/base/parts/ValueRow";
import { useSession, useShow } from "@/ui/show/useSession";
import { Fan } from "./Fan";
import { SlotRow } from "./SlotRow";
import { attributesOf, type AttributeRow } from "@/ui/show/held/summary";

const MOST_SLOTS = 16;

/** One attribute of the selection: its number, the slots it has, and its fan over several fixtures. */
export const AttributeValue = memo(function AttributeValue({ row }: { row: AttributeRow }) {
  const session = useSession();
  const { attribute, label, low, high, min, max, text, form, source, time, steps, palette, only } = row;
  const [fans, setFans] = useState(false);
  const several = useShow((s) => s.world.hands.selection.length > 1);
  const why = useShow(({ world }) => attributesOf(world, world.hands.selection).get(attribute)?.[0]?.key);
  const plays = useShow(({ world }) => {
    const { held, selection } = world.hands;
    return (
      playedIn(held).length > 0 &&
      (attributesOf(world, selection).get(attribute) ?? []).some(({ key }) => {
        const effect = held[key]?.effect;
        return effect !== undefined && !isStop(effect);
      })
    );
  });
  const size = max - min || 1;
  const whole = steps !== undefined;
  return (
    <>
      <ValueRow
        label={label}
        text={text}
        form={form}
        source={source}
        {...(time ? { time } : {})}
        {...(palette ? { palette } : {})}
        {...(only ? { only } : {})}
        share={((low + high) / 2 - min) / size}
        perPixel={whole ? 0.05 : size / 220}
        onScrub={(by, first) =>
          void session.hold(
            (b) =>
              whole
                ? hold(b, attribute, [Math.min(max, Math.max(min, Math.round(low) + Math.sign(by)))], false)
                : hold(b, attribute, [by], true),
            !first,
          )
        }
        onWhy={() => why && session.showWhy(why)}
        onTyping={(typed) =>
          useForeseen.setState({ hint: typed ? typedLine(typed, attributeInfo(attribute).word ?? attribute) : null })
        }
        onType={(typed) => {
          const { relative, amounts: text, over } = typedAmounts(typed);
          const amounts = session.read("values", text);
          if (amounts)
            session.hold((b) => {
              hold(b, attribute, amounts, relative);
              if (over !== undefined) b.over = over;
            });
        }}
        wave={plays}
        {...(whole
          ? {}
          : {
              onWave() {
                if (
                  !plays &&
                  session.hold((b) =>
                    holdVoices(b, [firstWave(attribute, min, max)], `a wave on ${label.toLowerCase()}`),
                  )
                )
                  return;
                editEffect("held");
              },
            })}
        {...(several && !whole ? { fan: fans, onFan: () => setFans(!fans) } : {})}
      />
      {steps && steps.length > 1 && steps.length <= MOST_SLOTS && (
        <SlotRow
          steps={steps}
          now={low === high ? low : NaN}
          gobos={/^Gobo\d$/.test(attribute)}
          onPick={(value) => session.hold((b) => hold(b, attribute, [value], false))}
        />
      )}
      {fans && several && !whole && (
        <Fan
          label={label}
          min={min}
          max={max}
          low={low}
          high={high}
          onPut={(stops, join) => void session.hold((b) => hold(b, attribute, stops, false), join)}
        />
      )}
    </>
  );
});
