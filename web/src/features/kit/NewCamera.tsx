import { Button } from "@mui/material";
import { useRef, useState } from "react";
import { type AskedCamera, firstAsked, RESOLUTIONS, withNewCamera } from "../../domain/kitEdits";
import * as limits from "../../domain/limits";
import type { Kit } from "../../domain/types";
import { ChoiceIn, NameIn, NumberIn } from "../../ui/fields";
import { isRefused } from "../../ui/isRefused";
import { Beside } from "./Beside";

interface Props {
  kit: Kit;
  editKit: (change: (old: Kit) => Kit) => void;
  onClose: () => void;
}

const OWN = "";

/** Four things of a new camera: its name, battery, memory, and what the box says. */
export function NewCamera({ kit, editKit, onClose }: Props) {
  const [asked, setAsked] = useState<AskedCamera>(() => firstAsked(kit));
  // Enter keeps a field and sends the form at once: what was typed last must be in it
  const latest = useRef(asked);
  const put = (some: Partial<AskedCamera>) => {
    latest.current = { ...latest.current, ...some };
    setAsked(latest.current);
  };
  const make = () => {
    const { current } = latest;
    editKit((old) => withNewCamera(old, current).kit);
    onClose();
  };
  return (
    <Beside mark="new/" title="A new camera" onClose={onClose}>
      <form
        className="beside-fields"
        onSubmit={(event) => {
          event.preventDefault();
          if (!isRefused(event.currentTarget)) make();
        }}
      >
        <NameIn label="It is called" value={asked.name} onCommit={(name) => put({ name })} />
        <ChoiceIn
          label="Its battery"
          value={asked.family ?? OWN}
          choices={[
            ...kit.families.map((one) => ({
              value: one.id,
              name: `${one.name}, ${((one.mah * one.nominal_v) / 1000).toFixed(1)} W h`,
            })),
            { value: OWN, name: "one of its own" },
          ]}
          onCommit={(family) => put({ family: family === OWN ? null : family })}
        />
        {asked.family === null ? (
          <NumberIn
            label="which holds"
            unit="mAh"
            value={asked.mah}
            {...limits.BatteryFamily.mah}
            onCommit={(mah) => put({ mah })}
          />
        ) : null}
        <NumberIn
          label="Its card holds"
          unit="GB"
          value={asked.gb}
          {...limits.Card.gb}
          whole
          onCommit={(gb) => put({ gb })}
        />
        <ChoiceIn
          label="The box says: in"
          value={asked.resolution}
          choices={RESOLUTIONS.map((one) => ({ value: one.name, name: one.name }))}
          onCommit={(resolution) => put({ resolution })}
        />
        <NumberIn
          label="at"
          unit="frames a second"
          value={asked.fps}
          {...limits.Mode.fps}
          onCommit={(fps) => put({ fps })}
        />
        <NumberIn
          label="it lasts"
          unit="min"
          value={asked.minutes}
          {...limits.DrawByRunTime.minutes}
          assumed="not known"
          onCommit={(minutes) => put({ minutes })}
          onClear={() => put({ minutes: null })}
        />
        <p className="hint">
          It comes with one battery and one card. Heat, start and standby are assumed until you say
          or test them.
        </p>
        <Button type="submit" variant="contained">
          Put it on the shelf
        </Button>
      </form>
    </Beside>
  );
}
