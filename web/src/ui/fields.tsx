import { Checkbox, FormControlLabel, TextField } from "@mui/material";
import { type ReactNode, useState } from "react";
import { parseNumber } from "../domain/units";
import { useKeptOnLeaving } from "./useKeptOnLeaving";
import { useLeft } from "./useLeft";

const LONGEST_NAME = 60;

interface Shared {
  label: string;
  /** The document's path of the field, so that a finding can lead here. */
  path?: string;
  hint?: ReactNode;
  width?: number | string;
}

interface TextInProps extends Shared {
  value: string;
  onCommit: (value: string) => void;
  /** Says what is wrong, or null. */
  check?: (value: string) => string | null;
  multiline?: boolean;
  placeholder?: string;
}

/** A text that is kept when the field is left or Enter is pressed; what is wrong is said beside it. */
export function TextIn({
  label,
  path,
  hint,
  width,
  value,
  onCommit,
  check,
  multiline,
  placeholder,
}: TextInProps) {
  const left = useLeft(path);
  const [draft, setDraft] = useState<string | null>(left.first);
  const shown = draft ?? value;
  const wrong = draft === null ? null : (check?.(draft) ?? null);
  const commit = () => {
    if (draft === null || wrong !== null) return;
    if (draft !== value) onCommit(draft);
    setDraft(null);
  };
  useKeptOnLeaving(() => {
    left.leave(wrong === null ? null : draft);
    commit();
  });
  return (
    <TextField
      label={label}
      value={shown}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === "Enter" && multiline !== true) commit();
        if (event.key === "Escape" && draft !== null) {
          event.stopPropagation();
          setDraft(null);
        }
      }}
      error={wrong !== null}
      helperText={wrong ?? hint}
      multiline={multiline}
      placeholder={placeholder}
      sx={{ width: width ?? 150 }}
      slotProps={{ htmlInput: { "data-path": path }, inputLabel: { shrink: true } }}
    />
  );
}

interface NameInProps extends Shared {
  value: string;
  onCommit: (value: string) => void;
}

/** A name or label: something must stand there, sixty characters at most. */
export function NameIn({ onCommit, ...shared }: NameInProps) {
  return (
    <TextIn
      {...shared}
      check={(text) => (text.trim() === "" ? "Give it a name." : null)}
      onCommit={(text) => onCommit(text.trim().slice(0, LONGEST_NAME))}
    />
  );
}

interface NumberInProps extends Shared {
  value: number | null | undefined;
  onCommit: (value: number) => void;
  /** Empty is allowed: the value is then assumed. */
  onClear?: () => void;
  min?: number;
  /** More than this, where there is no least. */
  above?: number;
  max: number;
  unit: string;
  whole?: boolean;
  assumed?: string;
}

/** A number with its unit; out of range it is refused beside the field and nothing changes. */
export function NumberIn({
  value,
  onCommit,
  onClear,
  min,
  above = -Infinity,
  max,
  unit,
  whole,
  assumed,
  label,
  ...shared
}: NumberInProps) {
  const check = (text: string) => {
    if (text.trim() === "") return onClear ? null : `Give a number in ${unit}.`;
    const number = parseNumber(text);
    if (number === null) return "That is no number.";
    if (whole === true && !Number.isInteger(number)) return "Give a whole number.";
    if (number > max || number < (min ?? -Infinity) || number <= above)
      return min === undefined
        ? `More than ${String(above)}, up to ${String(max)} ${unit}.`
        : `From ${String(min)} to ${String(max)} ${unit}.`;
    return null;
  };
  return (
    <TextIn
      {...shared}
      label={`${label}, ${unit}`}
      value={value == null ? "" : String(value).replace("-", "\u2212")}
      check={check}
      placeholder={assumed === undefined ? undefined : `assumed ${assumed}`}
      onCommit={(text) => {
        const number = parseNumber(text);
        if (number === null) onClear?.();
        else onCommit(number);
      }}
    />
  );
}

interface PercentInProps extends Shared {
  /** A share, 0 to 1. */
  value: number;
  onCommit: (share: number) => void;
  min?: number;
  max?: number;
}

/** A share, typed as per cent. */
export function PercentIn({ value, onCommit, min = 0, max = 100, ...shared }: PercentInProps) {
  return (
    <NumberIn
      {...shared}
      unit="%"
      value={Math.round(value * 100)}
      min={min}
      max={max}
      onCommit={(percent) => onCommit(percent / 100)}
    />
  );
}

export interface Choice<Value extends string> {
  value: Value;
  name: string;
}

interface ChoiceInProps<Value extends string> extends Shared {
  value: Value;
  choices: readonly Choice<Value>[];
  onCommit: (value: Value) => void;
}

/** One of a few. */
export function ChoiceIn<Value extends string>({
  label,
  path,
  hint,
  width,
  value,
  choices,
  onCommit,
}: ChoiceInProps<Value>) {
  const known = choices.some((one) => one.value === value);
  return (
    <TextField
      select
      label={label}
      value={value}
      helperText={hint}
      onChange={(event) => {
        const found = choices.find((one) => one.value === event.target.value);
        if (found) onCommit(found.value);
      }}
      sx={{ width: width ?? 150 }}
      slotProps={{
        select: { native: true },
        htmlInput: { "data-path": path },
        inputLabel: { shrink: true },
      }}
    >
      {known ? null : (
        <option value={value} disabled>
          {value === "" ? "choose" : `${value} (missing)`}
        </option>
      )}
      {choices.map((one) => (
        <option key={one.value} value={one.value}>
          {one.name}
        </option>
      ))}
    </TextField>
  );
}

interface CheckInProps {
  label: string;
  value: boolean;
  onCommit: (value: boolean) => void;
  path?: string;
}

export function CheckIn({ label, value, onCommit, path }: CheckInProps) {
  return (
    <FormControlLabel
      label={label}
      control={
        <Checkbox
          checked={value}
          onChange={(_, on) => onCommit(on)}
          size="small"
          slotProps={{ input: { "data-path": path } as object }}
        />
      }
    />
  );
}

interface PickProps<Value extends string> {
  label: string;
  value: Value | null;
  choices: readonly (Choice<Value> & { note?: string })[];
  onPick: (value: Value) => void;
}

/** A row of square buttons of which one is pressed. */
export function Pick<Value extends string>({ label, value, choices, onPick }: PickProps<Value>) {
  return (
    <div role="group" aria-label={label} className="pick label">
      {choices.map((one) => (
        <button
          key={one.value}
          type="button"
          aria-pressed={one.value === value}
          onClick={() => onPick(one.value)}
        >
          {one.name}
          {one.note === undefined ? null : <small>{one.note}</small>}
        </button>
      ))}
    </div>
  );
}
