import { type KeyboardEvent, type ReactNode, useId, useState } from "react";
import { rounded, shownIn, shownNumber } from "../domain/measures";
import { parseNumber } from "../domain/units";
import { useKeptOnLeaving } from "./useKeptOnLeaving";
import { useLeft } from "./useLeft";
import "./fields.css";

const LONGEST_NAME = 60;
const LONGEST_CH = 30;
const LEAST_CH = 9;
const LEAST_NUMBER_CH = 4;

interface Shared {
  label: string;
  /** Stands behind the blank, and in its name. */
  unit?: string;
  /** The document's path of the field, so that a finding can lead here. */
  path?: string;
  hint?: ReactNode;
  /** Takes the whole line. */
  wide?: boolean;
}

interface TextInProps extends Shared {
  value: string;
  onCommit: (value: string) => void;
  /** Says what is wrong, or null. */
  check?: (value: string) => string | null;
  multiline?: boolean;
  placeholder?: string;
  /** Characters that the blank holds at least. */
  least?: number;
}

/** A text that is kept when the field is left or Enter is pressed; what is wrong is said beside it. */
export function TextIn({
  label,
  unit,
  path,
  hint,
  wide,
  value,
  onCommit,
  check,
  multiline,
  placeholder,
  least = LEAST_CH,
}: TextInProps) {
  const id = useId();
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
  const blank = {
    ...names(label, unit, path, hint ?? wrong, id),
    value: shown,
    placeholder,
    "aria-invalid": wrong !== null,
    onChange: (event: { target: { value: string } }) => setDraft(event.target.value),
    onBlur: commit,
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key === "Enter" && multiline !== true) commit();
      if (event.key === "Escape" && draft !== null) {
        event.stopPropagation();
        setDraft(null);
      }
    },
  };
  const shownLength = Math.max(shown.length, placeholder?.length ?? 0);
  return (
    <Field
      label={label}
      unit={unit}
      hint={wrong ?? hint}
      wrong={wrong !== null}
      id={id}
      wide={wide}
    >
      {multiline === true ? (
        <textarea {...blank} rows={Math.max(2, shown.split("\n").length)} />
      ) : (
        <input
          {...blank}
          style={{
            width: `${String(Math.min(LONGEST_CH, Math.max(least, shownLength + 1) + 1))}ch`,
          }}
        />
      )}
    </Field>
  );
}

interface FieldProps extends Pick<Shared, "label" | "unit" | "hint"> {
  id?: string;
  wrong?: boolean;
  wide?: boolean | undefined;
  children: ReactNode;
}

/** A word and an underlined blank on one line, its unit behind; what is wrong stands under it. */
export function Field({ label, unit, hint, id, wrong = false, wide, children }: FieldProps) {
  const classes = ["field", wide === true ? "wide" : "", wrong ? "wrong" : ""];
  return (
    <label className={classes.filter(Boolean).join(" ")}>
      <span className="field-line">
        <span className="field-word">{label}</span>
        {children}
        {unit === undefined ? null : <span className="field-unit">{unit}</span>}
      </span>
      {hint == null || hint === "" ? null : (
        <small id={id === undefined ? undefined : `${id}-hint`} className="field-hint">
          {hint}
        </small>
      )}
    </label>
  );
}

/** How a blank is called and found; its unit is part of its name. */
function names(
  label: string,
  unit: string | undefined,
  path: string | undefined,
  hint: ReactNode,
  id: string,
) {
  return {
    "aria-label": unit === undefined ? label : `${label}, ${unit}`,
    "aria-describedby": hint == null || hint === "" ? undefined : `${id}-hint`,
    "data-path": path,
  };
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

interface NumberInProps extends Omit<Shared, "unit"> {
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

/**
 * A number with its unit; out of range it is refused beside the field and nothing changes.
 *
 * `value`, limits and what is kept are in `unit`; it is shown and typed in the measures chosen.
 */
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
  const shown = shownIn(unit);
  const limit = (of: number) => String(shownNumber(of, unit)).replace("-", "\u2212");
  const check = (text: string) => {
    if (text.trim() === "") return onClear ? null : `Give a number in ${shown.unit}.`;
    const typed = parseNumber(text);
    if (typed === null) return "That is no number.";
    if (whole === true && !Number.isInteger(typed)) return "Give a whole number.";
    const number = shown.back(typed);
    if (number > max || number < (min ?? -Infinity) || number <= above)
      return min === undefined
        ? `More than ${limit(above)}, up to ${limit(max)} ${shown.unit}.`
        : `From ${limit(min)} to ${limit(max)} ${shown.unit}.`;
    return null;
  };
  return (
    <TextIn
      {...shared}
      label={label}
      unit={shown.unit}
      least={LEAST_NUMBER_CH}
      value={value == null ? "" : limit(value)}
      check={check}
      placeholder={assumed === undefined ? undefined : assumedIn(assumed, unit)}
      onCommit={(text) => {
        const typed = parseNumber(text);
        if (typed === null) onClear?.();
        else onCommit(whole === true ? rounded(shown.back(typed), 0) : shown.back(typed));
      }}
    />
  );
}

/** What is assumed in SI, as it is shown; words stay as they are, and "not known" is not assumed. */
function assumedIn(assumed: string, unit: string): string {
  if (assumed.startsWith("not ")) return assumed;
  const number = parseNumber(assumed);
  return `assumed ${number === null ? assumed : String(shownNumber(number, unit))}`;
}

interface PercentInProps extends Omit<Shared, "unit"> {
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
  wide,
  value,
  choices,
  onCommit,
}: ChoiceInProps<Value>) {
  const id = useId();
  const known = choices.some((one) => one.value === value);
  return (
    <Field label={label} hint={hint} id={id} wide={wide}>
      <select
        {...names(label, undefined, path, hint, id)}
        value={value}
        onChange={(event) => {
          const found = choices.find((one) => one.value === event.target.value);
          if (found) onCommit(found.value);
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
      </select>
    </Field>
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
    <label className="field-check">
      <input
        type="checkbox"
        checked={value}
        onChange={(event) => onCommit(event.target.checked)}
        data-path={path}
      />
      <span>{label}</span>
    </label>
  );
}

interface PickProps<Value extends string> {
  label: string;
  value: Value | null;
  choices: readonly (Choice<Value> & { note?: string; picture?: ReactNode })[];
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
          {one.picture}
          <span>
            {one.name}
            {one.note === undefined ? null : <small>{one.note}</small>}
          </span>
        </button>
      ))}
    </div>
  );
}
